// The texts of a form beside what they read in a language; both go out to translators as files, and come back.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api } from "../../api/client";
import type { FoundTranslationsReply, TextToTranslate } from "../../api/generated/wire";
import { FORM } from "../../form/snapshot";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { inBase64 } from "../publish/link_tables";
import { useBench } from "../workbench/bench";
import { TextRow } from "./TextRow";
import { byOwner, type Language, sameElsewhere, shownOf, withTexts } from "./translations";

const SHOWN = { all: "All", missing: "Missing", changed: "Changed", values: "Values" } as const;
type Filter = keyof typeof SHOWN;

interface Props {
  language: Language;
  name: string;
  texts: readonly TextToTranslate[];
  onTakeAway: () => void;
}

export function Texts({ language, name, texts, onTakeAway }: Props) {
  const { form, act, reply, parts, mayEdit } = useBench();
  const [filter, setFilter] = useState<Filter>("all");
  // While one filter is chosen its rows stay, translated or not: nothing moves away under the hands.
  const [kept, setKept] = useState<ReadonlySet<string> | null>(null);
  const put = (changes: Language["texts"]) =>
    act({ do: "edit_form", changes: { languages: withTexts(form.languages, language.locale, changes) } });
  const of = (wanted: Filter) => texts.filter((each) => isOf(wanted, each, language));
  const written = Object.values(language.texts).filter(({ text }) => text).length;
  const same = sameElsewhere(texts, language);
  const seen = kept === null ? texts : texts.filter(({ at }) => kept.has(at));
  return (
    <>
      <Box sx={{ p: 2, pb: 1, display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center" }}>
        <Typography variant="h2" sx={{ mr: 1 }}>
          {name}
        </Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={filter}
          aria-label="Which texts"
          onChange={(_event, next: Filter | null) => {
            if (!next) return;
            setFilter(next);
            setKept(next === "all" ? null : new Set(of(next).map(({ at }) => at)));
          }}
        >
          {Object.entries(SHOWN).map(([each, title]) => (
            <ToggleButton key={each} value={each} sx={{ px: 1, textTransform: "none", color: "text.primary" }}>
              {title} {of(each as Filter).length}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {mayEdit && Object.keys(same).length > 0 && (
          <Button onClick={() => put(same)}>
            Fill in {counted(Object.keys(same).length, "text")} translated elsewhere
          </Button>
        )}
        <Box sx={{ flex: 1 }} />
        <Button href={api.translationsFile(reply.id, language.locale, "xlf")} download>
          XLIFF
        </Button>
        <Button href={api.translationsFile(reply.id, language.locale, "csv")} download>
          CSV
        </Button>
        {mayEdit && <FromFile language={language} onFound={put} />}
        {mayEdit && (
          <AskFirst
            label="Take away"
            color="inherit"
            warning={written > 0 ? `${counted(written, "translation")} into ${name} will go with it.` : null}
            onDone={onTakeAway}
          />
        )}
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, overflow: "auto", px: 2, pb: 4 }} tabIndex={0} role="region" aria-label="Texts">
        {byOwner(seen).map(([owner, mine]) => {
          const place = parts.get(owner);
          return (
            <Box
              component="section"
              key={owner}
              sx={{ contentVisibility: "auto", containIntrinsicSize: `auto ${mine.length * 60 + 40}px` }}
            >
              <Typography variant="h3" sx={{ mt: 2, mb: 0.5 }}>
                {owner === FORM ? "The form" : `${place?.number ?? ""} ${place?.title ?? ""}`.trim()}
              </Typography>
              {mine.map((each) => (
                <TextRow
                  key={each.at}
                  text={each}
                  shown={shownOf(each, language)}
                  locale={language.locale}
                  onWrite={mayEdit ? (written) => put({ [each.at]: { of: each.source, text: written } }) : null}
                />
              ))}
            </Box>
          );
        })}
        {seen.length === 0 && (
          <Typography color="text.secondary" sx={{ py: 4 }}>
            {filter === "all" ? "The form has no texts yet." : "None."}
          </Typography>
        )}
      </Box>
    </>
  );
}

function isOf(filter: Filter, each: TextToTranslate, language: Language): boolean {
  const { standing } = shownOf(each, language);
  if (filter === "missing") return standing === "missing" && each.has_words;
  if (filter === "changed") return standing === "changed";
  if (filter === "values") return each.lost.length > 0 || each.unknown.length > 0;
  return true;
}

function FromFile({ language, onFound }: { language: Language; onFound: (texts: Language["texts"]) => void }) {
  const { reply } = useBench();
  const input = useRef<HTMLInputElement>(null);
  const reading = useMutation({
    mutationFn: async (file: File) =>
      api.readTranslations(reply.id, language.locale, inBase64(new Uint8Array(await file.arrayBuffer()))),
    onSuccess: (found) => onFound(found.texts),
  });
  return (
    <>
      <Button disabled={reading.isPending} onClick={() => input.current?.click()}>
        From a file
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        accept=".xlf,.xliff,.csv"
        aria-label="A file with translations"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file) reading.mutate(file);
          target.value = "";
        }}
      />
      {reading.isError && (
        <Alert severity="error" onClose={reading.reset} sx={{ order: 1, width: "100%" }}>
          {reading.error.message}
        </Alert>
      )}
      {reading.data && (
        <Alert
          severity={reading.data.passed.length > 0 ? "warning" : "success"}
          onClose={reading.reset}
          sx={{ order: 1, width: "100%" }}
        >
          <Taken found={reading.data} />
        </Alert>
      )}
    </>
  );
}

function Taken({ found: { texts, changed, passed } }: { found: FoundTranslationsReply }) {
  return (
    <>
      {counted(Object.keys(texts).length, "translation")} taken from the file.
      {changed > 0 && ` ${changed} were made of other words than are there now: they stand under Changed.`}
      {passed.length > 0 && (
        <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
          {passed.slice(0, 20).map(({ at, reason }, index) => (
            <li key={index}>
              <code>{at || "(nowhere)"}</code>: {reason}
            </li>
          ))}
          {passed.length > 20 && <li>and {passed.length - 20} more.</li>}
        </Box>
      )}
    </>
  );
}
