// What the inspector shows while nothing is selected: the form's own settings.
import LANGUAGES from "../../api/generated/languages.json";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Check, Form } from "../../api/generated/wire";
import { RichTextField } from "../../ui/RichTextField";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { HelpButton } from "../help/HelpTopic";
import { useBench } from "../workbench/bench";
import { useSells } from "../workbench/useSells";
import { FormParts } from "./FormParts";
import { FormulaEditor } from "./FormulaEditor";
import { Heading } from "./InspectorFrame";
import { LongTextField } from "../../ui/LongTextField";
import { OrderSettings } from "./OrderSettings";

const CURRENCIES = ["EUR", "CHF", "GBP", "USD", "SEK", "NOK", "DKK", "PLN", "JPY"];
const ZONES = [
  "Europe/Berlin",
  "Europe/London",
  "Europe/Lisbon",
  "Europe/Athens",
  "America/New_York",
  "Asia/Tokyo",
  "UTC",
];

/** The ways in which a form can be shown. */
export const PRESENTATIONS = {
  whole: "All pages at once",
  paged: "Page by page",
  single: "One question at a time",
  chat: "As a conversation",
} as const;

const named = (names: readonly string[], known: Record<string, string> = {}) => ({
  ...known,
  ...Object.fromEntries(names.map((name) => [name, name])),
});

const rowsFor = (form: Form): readonly SettingRow[] => [
  {
    entry: "choice",
    setting: "presentation",
    label: "Shown",
    options: PRESENTATIONS,
    help: "Can be changed at any time; nothing is lost. What stands in a group stays together.",
  },
  {
    entry: "switch",
    setting: "goes_on",
    label: "A choice that one press answers goes on by itself",
    only: { setting: "presentation", values: ["single"] },
  },
  {
    entry: "switch",
    setting: "look_over",
    label: "All answers can be looked over before sending",
    only: { setting: "presentation", values: ["single"] },
  },
  {
    entry: "choice",
    setting: "page_addresses",
    label: "In the address, pages have",
    options: { names: "their names", numbers: "their numbers" },
    help: "Names are kept either way, and links to both go on working.",
    only: { setting: "presentation", values: ["paged", "single", "chat"] },
  },
  {
    entry: "choice",
    setting: "enter",
    label: "Enter, in a box of one line,",
    options: { next: "goes to the next field", send: "sends, or goes to the next page" },
    help: "Short forms may send; a long one would be sent half done.",
  },
  {
    entry: "choice",
    setting: "locale",
    label: "Language",
    options: { ...named([form.locale]), ...LANGUAGES },
    help: "How numbers and dates are read and written, and what the form says by itself",
  },
  { entry: "choice", setting: "currency", label: "Currency", options: named([...CURRENCIES, form.currency]) },
  {
    entry: "choice",
    setting: "time_zone",
    label: "Time zone",
    options: named([...ZONES, form.time_zone]),
    help: "What TODAY() and NOW() go by",
  },
  {
    entry: "choice",
    setting: "paper",
    label: "Paper",
    options: { A4: "A4", Letter: "Letter" },
    help: "What a response is printed on, and its PDF",
  },
];

export function FormSettings() {
  const { form, act, mayEdit } = useBench();
  const sells = useSells();
  const edit = (changes: Partial<Form>) => act({ do: "edit_form", changes });
  return (
    <Box
      component="fieldset"
      disabled={!mayEdit}
      sx={{ m: 0, p: 2, border: 0, overflow: "auto", display: "grid", gap: 2, alignContent: "start", minWidth: 0 }}
    >
      <Box>
        <Typography variant="h2">The form</Typography>
        <Typography variant="body2" color="text.secondary">
          Select a block, a page or a confirmation to see its settings here. Colours and wording are in Brand.
        </Typography>
      </Box>
      <SettingRows rows={rowsFor(form)} of={form} edit={edit} />
      <Welcome form={form} edit={edit} />
      <FeedbackSettings form={form} edit={edit} />
      <FormParts />
      <FormChecks form={form} edit={edit} />
      {sells && <OrderSettings />}
    </Box>
  );
}

interface Props {
  form: Form;
  edit: (changes: Partial<Form>) => void;
}

const VALUES = { htmlInput: { "data-values": "" } };

function Welcome({ form, edit }: Props) {
  const { welcome } = form;
  return (
    <>
      <FormControlLabel
        sx={{ ml: 0, justifyContent: "space-between" }}
        labelPlacement="start"
        label="A page to welcome visitors"
        control={
          <Switch
            checked={welcome !== null}
            onChange={(_event, on) => edit({ welcome: on ? { title: form.title, text: "", button: "Start" } : null })}
          />
        }
      />
      {welcome && (
        <>
          <TextField
            label="Heading of the welcome"
            slotProps={VALUES}
            value={welcome.title}
            onChange={(event) => edit({ welcome: { ...welcome, title: event.target.value } })}
          />
          <RichTextField
            label="Text of the welcome"
            value={welcome.text}
            onChange={(text) => edit({ welcome: { ...welcome, text } })}
          />
          <TextField
            label="Button of the welcome"
            value={welcome.button}
            onChange={(event) => edit({ welcome: { ...welcome, button: event.target.value } })}
          />
        </>
      )}
    </>
  );
}

const FEEDBACK_ROWS: readonly SettingRow[] = [
  {
    entry: "choice",
    setting: "when",
    label: "Tell visitors what was right",
    options: {
      never: "Not while they fill in",
      page: "When a page is left",
      at_once: "At once, by a button below each question",
    },
    help: "Of the questions of a score. Words for all are in Brand; for one question or answer, in its score.",
  },
  {
    entry: "switch",
    setting: "shows_right",
    label: "Show the right answer",
    help: "Where another one was given. It leaves the server only then.",
    only: { setting: "when", values: ["page", "at_once"] },
  },
  {
    entry: "switch",
    setting: "again",
    label: "They may answer again",
    help: "Else an answer of which it was told stays as it is.",
    only: { setting: "when", values: ["page", "at_once"] },
  },
];

/** A quiz: whether visitors are told, question by question, what of a score was right. */
function FeedbackSettings({ form, edit }: Props) {
  if (!form.figures.some(({ kind }) => kind === "score")) return null;
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <Heading>Feedback in a quiz</Heading>
      <SettingRows
        rows={FEEDBACK_ROWS}
        of={form.feedback}
        edit={(changes) => edit({ feedback: { ...form.feedback, ...changes } })}
      />
      <HelpButton topic="quiz" />
    </Box>
  );
}

/** What must hold of the form as a whole, looked at when it is handed in. */
function FormChecks({ form, edit }: Props) {
  const { analysis, analysed, mayEdit } = useBench();
  const put = (checks: Check[]) => edit({ checks });
  const change = (at: number, changes: Partial<Check>) =>
    put(form.checks.map((check, index) => (index === at ? { ...check, ...changes } : check)));
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <Heading>Checks of the whole form</Heading>
      {form.checks.map((check, at) => (
        <Box key={at} role="group" aria-label={`Check ${at + 1} of the form`} sx={{ display: "grid", gap: 1 }}>
          <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) 24px", gap: 0.5 }}>
            <FormulaEditor
              label={`Formula: check ${at + 1} of the form`}
              text={check.formula}
              findings={analysis.findings.filter(
                (each) =>
                  each.block === null &&
                  each.setting === `checks.${at}.formula` &&
                  analysed.checks[at]?.formula === check.formula,
              )}
              rowKind={null}
              readOnly={!mayEdit}
              focused={false}
              onChange={(formula) => change(at, { formula })}
              onDone={() => undefined}
            />
            <IconButton
              aria-label={`Remove check ${at + 1} of the form`}
              onClick={() => put(form.checks.filter((_check, index) => index !== at))}
              sx={{ width: 24, height: 28, fontSize: 14 }}
            >
              ×
            </IconButton>
          </Box>
          <LongTextField
            label="What visitors are told"
            attributes={{ "data-values": "" }}
            value={check.message}
            onChange={(event) => change(at, { message: event.target.value })}
          />
        </Box>
      ))}
      <Button sx={{ justifySelf: "start" }} onClick={() => put([...form.checks, { formula: "", message: "" }])}>
        Add a check
      </Button>
    </Box>
  );
}
