// What waits for somebody: changes that no visitor sees yet, and forms that were never published.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { FormRowReply, SignedInReply } from "../../api/generated/wire";
import { useSignedIn } from "../signed_in";
import { asDay, asDayAndTime, counted } from "../../text/words";

interface Item {
  form: FormRowReply;
  text: string;
  detail: string;
  kind: "money" | "rule" | "check";
  /** Where it is seen to, if not in Compose. */
  area?: string;
}

const SOON_MS = 7 * 24 * 3_600_000;

function itemsOf(forms: FormRowReply[], who: SignedInReply): Item[] {
  return forms.flatMap((form): Item[] => {
    const changed = `changed ${asDay(form.changed_at)}${form.changed_by ? ` by ${form.changed_by}` : ""}`;
    if (form.unreadable)
      return [{ form, text: "can’t be read by this version", detail: form.unreadable, kind: "check" }];
    if (form.tables_changed)
      return [{ form, text: "names what its tables don’t have any more", detail: form.tables_changed, kind: "check" }];
    if (form.failed > 0)
      return [
        {
          form,
          text: `has ${counted(form.failed, "follow-up")} that did not work`,
          detail: "Listed with why, and with the response that can have it done again",
          kind: "check",
          area: "follow-ups",
        },
      ];
    const waiting: Item[] = [
      ...(form.held > 0
        ? [
            {
              form,
              text: `holds ${counted(form.held, "suspected response")}`,
              detail: "Let through or removed in Responses; they count nowhere until then",
              kind: "rule" as const,
              area: "responses",
            },
          ]
        : []),
      ...(form.mine > 0
        ? [
            {
              form,
              text: `has ${counted(form.mine, "response")} in your hands`,
              detail: "Given to you, and not yet of the last status",
              kind: "money" as const,
              area: `responses?where=${encodeURIComponent(JSON.stringify([["response.person", "any_of", who.person_id]]))}`,
            },
          ]
        : []),
    ];
    const left = form.closes === null ? 0 : new Date(form.closes).getTime() - Date.now();
    const closing: Item[] =
      left > 0 && left < SOON_MS
        ? [
            {
              form,
              text: `closes on ${asDayAndTime(form.closes!)}`,
              detail: "Set in Publish: Who and when",
              kind: "check",
              area: "publish",
            },
          ]
        : [];
    if (form.live_edition === null) return [{ form, text: "was never published", detail: changed, kind: "rule" }];
    if (!form.changed) return [...waiting, ...closing];
    return [
      ...waiting,
      ...closing,
      {
        form,
        text: "has changes that visitors don’t see yet",
        detail: `Edition ${form.live_edition} is live · ${changed}`,
        kind: "money",
      },
    ];
  });
}

export function Attention({ forms }: { forms: FormRowReply[] }) {
  const who = useSignedIn();
  const items = itemsOf(forms, who).slice(0, 12);
  return (
    <Box
      component="aside"
      aria-label="Needs attention"
      sx={{ p: 2.25, borderLeft: 1, borderColor: "divider", bgcolor: "background.paper", overflow: "auto" }}
    >
      <Typography variant="h3" component="h2" sx={{ mb: 1.5, color: "text.secondary" }}>
        Needs attention
      </Typography>
      {items.length === 0 && (
        <Typography color="text.secondary">Nothing. Every form is live as you left it.</Typography>
      )}
      {items.map(({ form, text, detail, kind, area = "compose" }) => (
        <Box key={`${form.id} ${text}`} sx={{ mb: 2, pl: 1.5, borderLeft: 3, borderColor: `note.${kind}` }}>
          <Typography>
            <Box
              component={Link}
              to={`/forms/${form.id}/${area}`}
              sx={{
                color: "inherit",
                fontWeight: 650,
                textDecoration: "none",
                "&:hover": { textDecoration: "underline" },
              }}
            >
              {form.name}
            </Box>{" "}
            {text}
          </Typography>
          <Typography variant="caption" sx={{ color: "text.secondary" }}>
            {detail}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
