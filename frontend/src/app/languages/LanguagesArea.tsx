// The further languages of a form: every text that visitors read, with what it reads in another language beside it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import LANGUAGES from "../../api/generated/languages.json";
import { queries } from "../../api/queries";
import { languageName } from "../../text/words";
import type { Form } from "../../api/generated/wire";
import { SidePanel, SideRow } from "../../ui/SideList";
import { useBench } from "../workbench/bench";
import { Texts } from "./Texts";

export function LanguagesArea() {
  const { form, act, reply, saved, mayEdit, setting } = useBench();
  // A finding of the proof leads to its language: "languages.de.adults.label".
  const [chosen, setChosen] = useState(() => setting?.split(".")[1] ?? "");
  const languages = form.languages.filter(({ locale }) => locale !== form.locale);
  const language = languages.find(({ locale }) => locale === chosen) ?? languages[0];
  const known = useQuery(queries.translations(reply.id, language?.locale ?? "", saved.revision));
  const put = (next: Form["languages"]) => act({ do: "edit_form", changes: { languages: next } });
  const free = Object.entries(LANGUAGES).filter(
    ([locale]) => locale !== form.locale && !languages.some((each) => each.locale === locale),
  );
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "300px minmax(0, 1fr)", height: "100%" }}>
      <SidePanel name="Languages">
        <Box sx={{ p: 2, display: "grid", gap: 0.5 }}>
          <Typography variant="h1">Languages</Typography>
          <Typography color="text.secondary">
            Written in {languageName(form.locale)}. In which other languages can it be filled in?
          </Typography>
        </Box>
        <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none", overflow: "auto" }}>
          {languages.map(({ locale }) => {
            const told = known.data?.languages.find((each) => each.locale === locale);
            return (
              <li key={locale}>
                <SideRow chosen={locale === language?.locale} onChoose={() => setChosen(locale)}>
                  <Typography sx={{ fontWeight: 600 }} lang={locale.replace("_", "-")}>
                    {languageName(locale)}
                  </Typography>
                  <Typography variant="body2" color="text.secondary">
                    {told ? `${told.done} of ${told.all} texts` : "\u00a0"}
                  </Typography>
                  {told && <Bar share={told.all ? told.done / told.all : 1} />}
                </SideRow>
              </li>
            );
          })}
        </Box>
        {mayEdit && (
          <Box sx={{ p: 2, display: "grid", gap: 1.5 }}>
            <TextField
              select
              label="Add a language"
              value=""
              onChange={({ target }) => {
                put([...form.languages, { locale: target.value, texts: {} }]);
                setChosen(target.value);
              }}
            >
              {free.map(([locale, name]) => (
                <MenuItem key={locale} value={locale} lang={locale}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            {languages.length > 0 && (
              <FormControlLabel
                sx={{ ml: -1, alignItems: "start" }}
                label="Begin in the language of the visitor’s browser"
                control={
                  <Switch
                    checked={form.language_by_browser}
                    onChange={(_event, on) => act({ do: "edit_form", changes: { language_by_browser: on } })}
                  />
                }
              />
            )}
          </Box>
        )}
        {languages.length > 0 && (
          <Typography variant="body2" color="text.secondary" sx={{ px: 2, pb: 2 }}>
            Visitors switch above the title. A link leads to a language with <code>?codexa-language=de</code>; what
            comes back is one set of responses, read in {languageName(form.locale)}.
          </Typography>
        )}
      </SidePanel>
      {language ? (
        <Box sx={{ minHeight: 0, display: "flex", flexDirection: "column" }}>
          {known.isError && <Alert severity="error">{known.error.message}</Alert>}
          <Texts
            key={language.locale}
            language={language}
            name={languageName(language.locale)}
            texts={known.data?.texts ?? []}
            onTakeAway={() => put(form.languages.filter((each) => each !== language))}
          />
        </Box>
      ) : (
        <Box sx={{ p: 4, maxWidth: 560 }}>
          <Typography variant="h2" sx={{ mb: 1 }}>
            One form, several languages
          </Typography>
          <Typography color="text.secondary">
            Add a language: all that visitors read is then listed with room for its translation. What a form says by
            itself, numbers, money and dates follow by themselves. How it looks in each is in{" "}
            <Link to={`/forms/${reply.id}/preview`}>Preview</Link>.
          </Typography>
        </Box>
      )}
    </Box>
  );
}

const Bar = ({ share }: { share: number }) => (
  <Box sx={{ height: 4, mt: 0.5, borderRadius: 2, bgcolor: "divider" }}>
    <Box sx={{ width: `${share * 100}%`, height: 4, borderRadius: 2, bgcolor: "note.calculation" }} />
  </Box>
);
