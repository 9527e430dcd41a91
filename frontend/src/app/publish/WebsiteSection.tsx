// On a website: the snippet for each way, what it can be told, which websites may show the form, and whether one does.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { paletteOf } from "../../form/colours";
import { useWordsOf } from "../brand/words_of";
import { CopyField } from "../../ui/CopyField";
import { LongTextField } from "../../ui/LongTextField";
import { type SettingRow, SettingRows } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { Layout, Panel } from "./Layout";
import type { Form } from "../../api/generated/wire";
import { languageName } from "../../text/words";
import { PRESENTATIONS } from "../compose/FormSettings";
import { LivePicture } from "./LivePicture";
import { type SnippetOptions, snippetOf, standOf, type Way, WAYS } from "./snippet";

const FLOATING = ["pop-up", "tab", "corner"];
const optionsFor = (form: Form): readonly SettingRow[] => [
  {
    entry: "text",
    setting: "title",
    label: "Title",
    help: "Read by screen readers, and the words of the link that is seen without the script",
  },
  { entry: "text", setting: "button", label: "Words on the button", only: { setting: "way", values: FLOATING } },
  {
    entry: "text",
    setting: "opener",
    label: "What of your page opens it",
    help: "A CSS selector, such as .order or #visit-button; blank for a button of its own",
    mono: true,
    only: { setting: "way", values: ["pop-up"] },
  },
  {
    entry: "choice",
    setting: "shown",
    label: "Shown there",
    options: { "": "As the form says", ...PRESENTATIONS },
  },
  ...(form.languages.length > 0 ? [languageRow(form)] : []),
  {
    entry: "text",
    setting: "greeting",
    label: "Greets with these words beside its button",
    help: "Without a sound, and never again once they were sent away; blank for none",
    only: { setting: "way", values: ["corner"] },
  },
  {
    entry: "whole",
    setting: "after",
    label: "Opens or greets by itself after so many seconds",
    help: "Once a visit, and never again after it was closed; blank for never",
    blank: true,
    most: 3_600,
    only: { setting: "way", values: ["pop-up", "corner"] },
  },
  {
    entry: "switch",
    setting: "leaving",
    label: "Opens when somebody is about to leave",
    only: { setting: "way", values: ["pop-up"] },
  },
  {
    entry: "whole",
    setting: "width",
    label: "Width in pixels",
    help: "Blank for all the room there is, or the usual width of a window",
    blank: true,
    least: 240,
    most: 2_000,
    only: { setting: "way", values: ["page", "frame", ...FLOATING] },
  },
  {
    entry: "whole",
    setting: "room",
    label: "Height that is kept free, in pixels",
    help: "So that nothing below jumps while the form is loaded",
    least: 100,
    most: 5_000,
    only: { setting: "way", values: ["page", "frame"] },
  },
  {
    entry: "switch",
    setting: "fragment",
    label: "Keep the open page in your page’s address",
    only: { setting: "way", values: ["page"] },
  },
  {
    entry: "text",
    setting: "list",
    label: "List of your page that hears what happens",
    help: "Its name; it hears ready, page, answered, submitted, closed, never an answer. Blank for none",
    mono: true,
    only: { setting: "way", values: ["page", ...FLOATING] },
  },
  {
    entry: "switch",
    setting: "strict",
    label: "Your page lets in nothing inline",
    help: "By its Content-Security-Policy: the script then stands before the form and keeps the room",
    only: { setting: "way", values: ["page", ...FLOATING] },
  },
];

const languageRow = ({ locale, languages }: Form): SettingRow => ({
  entry: "choice",
  setting: "language",
  label: "Begins in",
  options: {
    "": "The language of the website or browser",
    ...Object.fromEntries([locale, ...languages.map((each) => each.locale)].map((each) => [each, languageName(each)])),
  },
});

export function WebsiteSection() {
  const { saved, reply, form } = useBench();
  const words = useWordsOf(form);
  const [options, setOptions] = useState<SnippetOptions>(() => ({
    way: "page",
    title: form.title || form.name,
    button: form.title || form.name,
    opener: "",
    after: "",
    shown: "",
    language: "",
    greeting: "",
    leaving: false,
    width: "",
    room: "640",
    fragment: false,
    values: {},
    list: "",
    close: words.own("closeWindow"),
    colour: form.brand.accent,
    on: paletteOf(form.brand).on_accent,
    strict: false,
  }));
  const change = (changes: Record<string, unknown>) =>
    setOptions((before) => ({
      ...before,
      ...Object.fromEntries(
        Object.entries(changes).map(([name, value]) => [name, NUMBERS.has(name) ? String(value ?? "") : value]),
      ),
    }));
  const shown = useDeferredValue(options);
  const names = form.links.filter(({ sealed }) => !sealed);
  const shownRows = { ...options, ...Object.fromEntries([...NUMBERS].map((name) => [name, numberOf(options, name)])) };
  return (
    <Layout
      title="On a website"
      lead="A snippet for your page. It brings the form, in the form’s own look, and nothing else of ours."
      picture={
        saved.liveEdition === null ? (
          <Typography color="text.secondary">Publish the form: then it is seen here on a page.</Typography>
        ) : reply.practice_website ? (
          <LivePicture
            title="On the practice website"
            src={standOf(reply.practice_website, saved.address, shown)}
            width={768}
          />
        ) : (
          <Typography color="text.secondary">No practice website is set up on this server.</Typography>
        )
      }
    >
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="In which way"
        value={options.way}
        onChange={(_event, way: Way | null) => way && change({ way })}
        sx={{ flexWrap: "wrap", bgcolor: "background.paper", justifySelf: "start" }}
      >
        {Object.entries(WAYS).map(([way, { title }]) => (
          <ToggleButton key={way} value={way} sx={{ textTransform: "none" }}>
            {title}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Panel title={WAYS[options.way].title} lead={WAYS[options.way].lead}>
        <CopyField label="the snippet" text={snippetOf(saved.address, options)} wrap />
        <Box sx={{ display: "grid", gap: 1.5 }}>
          <SettingRows rows={optionsFor(form)} of={shownRows} edit={change} />
          {names.map(({ name }) => (
            <TextField
              key={name}
              label={`Value for ${name}`}
              value={options.values[name] ?? ""}
              onChange={(event) => change({ values: { ...options.values, [name]: event.target.value } })}
            />
          ))}
        </Box>
      </Panel>
      <Sites />
      <LookThere />
    </Layout>
  );
}

const NUMBERS = new Set(["after", "width", "room"]);
const numberOf = (options: SnippetOptions, name: string): number | null => {
  const text = options[name as "after" | "width" | "room"];
  return text === "" ? null : Number(text);
};

function Sites() {
  const { reply, mayEdit } = useBench();
  const queryClient = useQueryClient();
  const [sites, setSites] = useState(reply.sites.join("\n"));
  const save = useMutation({
    mutationFn: () =>
      api.setSites(
        reply.id,
        sites
          .split("\n")
          .map((site) => site.trim())
          .filter(Boolean),
      ),
    onSuccess: (kept) => {
      queryClient.setQueryData(queries.form(reply.id).queryKey, (before) => before && { ...before, sites: kept.sites });
      setSites(kept.sites.join("\n"));
    },
  });
  const changed = sites.trim() !== reply.sites.join("\n");
  return (
    <Panel
      title="Websites that may show it"
      lead={
        reply.sites.length === 0
          ? "Any website may show it, as none is listed. List some, one a line, and only these may."
          : "Only these may show it; on any other, visitors read that, with a link. It holds at once, without publishing."
      }
    >
      <Box sx={{ display: "grid", gap: 1.5, justifyItems: "start" }}>
        <LongTextField
          lines={2}
          value={sites}
          disabled={!mayEdit}
          placeholder="https://www.example.org"
          onChange={(event) => setSites(event.target.value)}
          attributes={{ "aria-label": "Websites, one a line", spellCheck: false }}
        />
        {save.isError && <Alert severity="error">{reasonOf(save.error)}</Alert>}
        {mayEdit && (
          <Button variant="outlined" disabled={!changed} loading={save.isPending} onClick={() => save.mutate()}>
            {save.isSuccess && !changed ? "Saved" : "Save the websites"}
          </Button>
        )}
      </Box>
    </Panel>
  );
}

function LookThere() {
  const { reply, mayEdit } = useBench();
  const [page, setPage] = useState("");
  const look = useMutation({ mutationFn: () => api.look(reply.id, page) });
  if (!mayEdit) return null;
  return (
    <Panel
      title="Is it there?"
      lead="We fetch your page and say whether the snippet, the permission and the page’s policy fit."
    >
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          if (page.trim()) look.mutate();
        }}
        sx={{ display: "flex", gap: 1 }}
      >
        <TextField
          label="Address of the page"
          placeholder="https://www.example.org/visit"
          value={page}
          onChange={(event) => setPage(event.target.value)}
          sx={{ flex: 1 }}
        />
        <Button type="submit" variant="outlined" loading={look.isPending}>
          Look
        </Button>
      </Box>
      <Box role="status">
        {look.isError && <Alert severity="error">{reasonOf(look.error)}</Alert>}
        {look.data?.remarks.map(({ good, words }) => (
          <Alert key={words} severity={good ? "success" : "error"} sx={{ mb: 1, overflowWrap: "anywhere" }}>
            {words}
          </Alert>
        ))}
      </Box>
    </Panel>
  );
}
