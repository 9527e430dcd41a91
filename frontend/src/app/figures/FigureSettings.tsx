// One figure: its name, key and format, its definition by kind, and its values on real responses.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useRef } from "react";
import { copied, newFigure } from "../../model/new_block";
import { keyFrom, keysOf, isKeyRead } from "../../model/outline";
import { type Figure, FORM } from "../../model/parts";
import { SettingRows } from "../../ui/SettingRows";
import { KeySetting } from "../compose/KeySetting";
import { MoveButtons } from "../compose/MoveButtons";
import { formulaSetting } from "../compose/settings_text";
import { useBench } from "../workbench/bench";
import { KINDS } from "./kinds";
import { OnResponses } from "./OnResponses";

/** Whether what is found in a setting is told where it stands: in every formula. */
const stands = (setting: string | null): boolean => setting !== null && formulaSetting(setting) !== null;

export function FigureSettings({ figure }: { figure: Figure }) {
  const { form, act, mayEdit, select, setting, analysis, actions } = useBench();
  const name = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (setting !== "name") return;
    name.current?.focus();
    name.current?.select();
  }, [setting]);
  const edit = (changes: Record<string, unknown>) => act({ do: "edit", parts: [figure.id], changes });
  const rename = (typed: string) => {
    const others = keysOf(form).filter((key) => key !== figure.key);
    const follows = figure.key === keyFrom(figure.name, others) && !isKeyRead(form, figure.key);
    edit({ name: typed, ...(follows ? { key: keyFrom(typed, others) } : {}) });
  };
  const duplicate = () => {
    const name = copied(figure.name || figure.key);
    const { id, key } = newFigure(form, figure.kind, name);
    const at = form.figures.findIndex((each) => each.id === figure.id) + 1;
    act({ do: "add", parts: [{ ...figure, id, key, name } as Figure], into: { holder: FORM, list: "figures" }, at });
    select(id);
  };
  const kind = KINDS[figure.kind];
  const { Editor } = kind;
  const findings = analysis.findings.filter((each) => each.block === figure.id && !stands(each.setting));
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 280px", minHeight: "100%" }}>
      <Box component="fieldset" disabled={!mayEdit} sx={{ m: 0, p: 2, border: 0, minWidth: 0 }}>
        <Typography variant="h2" sx={{ mb: 1.5 }}>
          {figure.name || figure.key}
        </Typography>
        <Editor figure={figure} edit={edit} />
        {findings.map((finding, at) => (
          <Typography
            key={at}
            variant="body2"
            sx={{ mt: 1, color: finding.severity === "error" ? "note.check" : "note.money" }}
          >
            {finding.message} {finding.remedy}
          </Typography>
        ))}
        <OnResponses figure={figure} />
      </Box>
      <Box
        component="fieldset"
        disabled={!mayEdit}
        sx={{
          m: 0,
          p: 2,
          border: 0,
          borderLeft: 1,
          borderColor: "divider",
          display: "grid",
          gap: 2,
          alignContent: "start",
        }}
      >
        <TextField inputRef={name} label="Name" value={figure.name} onChange={(event) => rename(event.target.value)} />
        <KeySetting id={figure.id} value={figure.key} actions={actions} />
        <SettingRows
          rows={[
            ...kind.format,
            {
              entry: "switch",
              setting: "shown_to_visitors",
              label: "Visitors may see it",
              help: "In texts, calculated fields and charts; else its value never leaves the server.",
            },
          ]}
          of={figure}
          edit={edit}
        />
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <Button color="inherit" onClick={duplicate}>
            Duplicate
          </Button>
          <Button color="error" onClick={() => act({ do: "remove", parts: [figure.id] })}>
            Remove
          </Button>
          <Box sx={{ flex: 1 }} />
          <MoveButtons actions={actions} />
        </Box>
      </Box>
    </Box>
  );
}
