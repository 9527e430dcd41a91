// A profile: what each option speaks for, as a grid of options and profiles.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { isKeyRead, keyFrom } from "../../model/outline";
import { DecimalBox } from "../../ui/DecimalField";
import { RenamedBox } from "../../ui/RenamedField";
import { HelpButton } from "../help/HelpTopic";
import { useBench } from "../workbench/bench";
import { useNameOf } from "../workbench/names_seen";
import { AddQuestion } from "./AddQuestion";
import type { EditorProps } from "./editor_props";
import {
  optionsIn,
  type ProfiledQuestion,
  type ProfileFigure,
  withCell,
  withoutProfile,
  withProfileNamed,
} from "./questions";

export function ProfileEditor({ figure, edit }: EditorProps<ProfileFigure>) {
  const { form, parts, actions } = useBench();
  const nameOf = useNameOf();
  const { profiles, questions } = figure;
  const isRead = isKeyRead(form, figure.key);
  const codes = profiles.map(({ code }) => code);
  const put = (next: ProfiledQuestion[]) => edit({ questions: next });
  const cell = { px: 0.5, py: 0.25, borderBottom: 1, borderColor: "divider", textAlign: "left" } as const;
  return (
    <Box sx={{ overflowX: "auto" }}>
      <Box component="table" sx={{ borderCollapse: "collapse" }}>
        <thead>
          <tr>
            <Box component="th" scope="col" sx={{ ...cell, minWidth: 200 }}>
              <Typography variant="h3" component="span" color="text.secondary">
                Option
              </Typography>
            </Box>
            {profiles.map((profile, at) => (
              // Not by its code, which follows the name that is being typed.
              <Box component="th" scope="col" key={at} sx={{ ...cell, minWidth: 130 }}>
                <Box sx={{ display: "flex" }}>
                  <RenamedBox
                    name={`Name of profile ${at + 1}`}
                    hint={`Code: ${profile.code}`}
                    value={profile.label}
                    onRename={(name) =>
                      isRead
                        ? actions.rename(figure.id, `profiles.${at}.label`, name)
                        : edit(withProfileNamed(figure, at, name, isRead))
                    }
                  />
                  <IconButton
                    aria-label={`Remove the profile ${profile.label}`}
                    onClick={() =>
                      edit({
                        profiles: profiles.filter((_each, index) => index !== at),
                        questions: questions.map((question) => withoutProfile(question, profile.code)),
                      })
                    }
                    sx={{ fontSize: 14 }}
                  >
                    ×
                  </IconButton>
                </Box>
              </Box>
            ))}
            <Box component="th" sx={cell}>
              <Button
                onClick={() => {
                  const label = `Profile ${profiles.length + 1}`;
                  edit({ profiles: [...profiles, { code: keyFrom(label, codes), label }] });
                }}
              >
                + profile
              </Button>
            </Box>
          </tr>
        </thead>
        {questions.map((question, at) => {
          const entry = parts.get(question.field);
          const options = entry?.what === "block" ? optionsIn(entry.part) : [];
          const change = (code: string, profile: string, value: string | null) =>
            put(questions.map((each, index) => (index === at ? withCell(each, code, profile, value) : each)));
          return (
            <tbody key={question.field}>
              <tr>
                <Box component="th" scope="rowgroup" colSpan={profiles.length + 1} sx={{ ...cell, pt: 1.5 }}>
                  {nameOf(question.field, "A deleted field")}
                </Box>
                <Box component="td" sx={cell}>
                  <IconButton
                    aria-label={`Remove ${nameOf(question.field, "the deleted field")}`}
                    onClick={() => put(questions.filter((_each, index) => index !== at))}
                    sx={{ fontSize: 14 }}
                  >
                    ×
                  </IconButton>
                </Box>
              </tr>
              {options.map((option) => (
                <tr key={option.id}>
                  <Box component="th" scope="row" sx={{ ...cell, pl: 2, fontWeight: 400 }}>
                    {option.label}
                  </Box>
                  {profiles.map((profile, column) => (
                    <Box component="td" key={column} sx={cell}>
                      <DecimalBox
                        label={`${option.label} speaks for ${profile.label}`}
                        value={question.points[option.code]?.[profile.code] ?? null}
                        onChange={(value) => change(option.code, profile.code, value)}
                      />
                    </Box>
                  ))}
                </tr>
              ))}
            </tbody>
          );
        })}
      </Box>
      <Box sx={{ display: "flex", gap: 2, mt: 1 }}>
        <AddQuestion
          taken={questions.map(({ field }) => field)}
          optioned
          onAdd={({ id }) => put([...questions, { field: id, points: {} }])}
        />
        <TextField
          select
          label="A tie is won by"
          value={figure.tie}
          onChange={(event) => edit({ tie: event.target.value as ProfileFigure["tie"] })}
          sx={{ maxWidth: 240, mt: 1 }}
        >
          <MenuItem value="first">the first of them here</MenuItem>
          <MenuItem value="last">the last of them here</MenuItem>
          <MenuItem value="none">none of them</MenuItem>
        </TextField>
      </Box>
      <HelpButton topic="profile" />
      <Typography variant="caption" color="text.secondary" sx={{ display: "block", mt: 1 }}>
        Formulas name the winner’s code {figure.key}, its name {figure.key}.label; {figure.key}.ranking, {figure.key}
        .points.CODE and {figure.key}.share.CODE are known too.
      </Typography>
    </Box>
  );
}
