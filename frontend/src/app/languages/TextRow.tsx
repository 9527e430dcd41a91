// A text, and what it reads in another language.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Fragment, useState } from "react";
import type { TextToTranslate } from "../../api/generated/wire";
import { RichText } from "../../fields/RichText";
import { RichTextField } from "../../ui/RichTextField";
import type { Shown } from "./translations";

interface Props {
  text: TextToTranslate;
  shown: Shown;
  locale: string;
  /** Puts another translation in its place; null for who may not. */
  onWrite: ((text: string) => void) | null;
}

const FIELD = {
  width: "100%",
  minHeight: "calc(1lh + 12px)",
  px: 1,
  py: 0.75,
  font: "inherit",
  color: "inherit",
  bgcolor: "background.paper",
  border: 1,
  borderColor: "divider",
  borderRadius: 1,
  resize: "vertical",
  fieldSizing: "content",
} as const;

export function TextRow({ text, shown, locale, onWrite }: Props) {
  const isMissing = shown.standing === "missing" && text.has_words;
  const wrong = wrongIn(text, shown);
  const label = `${text.what}, translated`;
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "112px minmax(0, 1fr) minmax(0, 1fr)",
        gap: 1.5,
        py: 0.75,
        alignItems: "start",
        borderTop: 1,
        borderColor: "divider",
      }}
    >
      <Typography variant="body2" color="text.secondary" sx={{ pt: 0.75 }}>
        {text.what}
      </Typography>
      <Box sx={{ pt: 0.75, overflowWrap: "anywhere", "& p": { m: 0, mb: 0.5 } }}>
        {text.how === "html" ? <RichText html={text.source} /> : <WithValues text={text.source} />}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        {text.how === "html" ? (
          <Rich label={label} value={shown.text} locale={locale} onWrite={onWrite} />
        ) : (
          <Box
            component="textarea"
            rows={1}
            aria-label={label}
            lang={locale.replace("_", "-")}
            dir="auto"
            readOnly={!onWrite}
            value={shown.text}
            placeholder={isMissing ? "not translated" : ""}
            maxLength={5_000}
            onChange={({ target }: { target: HTMLTextAreaElement }) => onWrite?.(target.value)}
            sx={{ ...FIELD, ...(isMissing && { borderLeft: 4, borderLeftColor: "note.money" }) }}
          />
        )}
        {wrong && (
          <Typography variant="body2" sx={{ color: "note.check" }}>
            {wrong}
          </Typography>
        )}
        {shown.standing === "changed" && (
          <Typography variant="body2" color="text.secondary">
            Translated when it read “{text.of}”.
            {onWrite && (
              <Button size="small" onClick={() => onWrite(shown.text)} sx={{ ml: 0.5, py: 0 }}>
                It still fits
              </Button>
            )}
          </Typography>
        )}
      </Box>
    </Box>
  );
}

function wrongIn(text: TextToTranslate, shown: Shown): string {
  // Said of what was saved last; something else is being written.
  if (shown.text !== text.text) return "";
  if (text.unknown.length > 0) return `{${text.unknown[0]}} means nothing here.`;
  return text.lost.length > 0 ? `{${text.lost.join("}, {")}} is missing.` : "";
}

/** An editor is made once it is wanted: a form may have hundreds of texts. */
function Rich({
  label,
  value,
  locale,
  onWrite,
}: { label: string; value: string; locale: string } & Pick<Props, "onWrite">) {
  const [open, setOpen] = useState(false);
  if (open && onWrite) return <RichTextField label={label} value={value} onChange={onWrite} />;
  return (
    <Box lang={locale.replace("_", "-")} dir="auto" sx={{ "& p": { m: 0, mb: 0.5 } }}>
      {value ? (
        <RichText html={value} />
      ) : (
        <Typography component="span" color="text.secondary" sx={{ mr: 1 }}>
          not translated
        </Typography>
      )}
      {onWrite && (
        <Button size="small" aria-label={`Write: ${label}`} onClick={() => setOpen(true)} sx={{ py: 0.25 }}>
          Write
        </Button>
      )}
    </Box>
  );
}

const VALUE = /(\{[^{}]+\})/;

const WithValues = ({ text }: { text: string }) => (
  <>
    {text.split(VALUE).map((piece, index) => (
      <Fragment key={index}>
        {VALUE.test(piece) ? (
          <Box component="code" sx={{ px: 0.5, borderRadius: 0.5, bgcolor: "noteTint.calculation" }}>
            {piece}
          </Box>
        ) : (
          piece
        )}
      </Fragment>
    ))}
  </>
);
