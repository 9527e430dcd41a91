// Several blocks at once: what can be done with all of them.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useBench } from "../workbench/bench";
import { CommonSettings } from "./CommonSettings";
import { Heading } from "./InspectorFrame";
import { type ComposeActions, questionsIn } from "./actions";

export function SeveralSettings({ actions }: { actions: ComposeActions }) {
  const { parts, selected, form, mayEdit } = useBench();
  const entries = selected.flatMap((id) => parts.get(id) ?? []);
  const blocks = entries.filter((entry) => entry.what === "block");
  const questions = questionsIn(parts, selected);
  const optional = questions.filter(({ part }) => "required" in part && part.required.trim() === "");
  return (
    <Box
      component="fieldset"
      disabled={!mayEdit}
      sx={{ m: 0, p: 2, border: 0, display: "grid", gap: 2, overflow: "auto", alignContent: "start" }}
    >
      <Typography variant="h2">{entries.length} selected</Typography>
      <Typography variant="body2" color="text.secondary">
        {entries.map((entry) => entry.number).join(", ")}
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        <Button variant="outlined" color="inherit" onClick={actions.group} title="Ctrl+G">
          Group
        </Button>
        <Button variant="outlined" color="inherit" onClick={actions.duplicate} title="Ctrl+D">
          Duplicate
        </Button>
        <Button variant="outlined" color="error" onClick={() => actions.remove()} title="Delete">
          Remove
        </Button>
      </Box>
      {questions.length > 0 && (
        <Box>
          <Heading>Must be answered</Heading>
          <Typography variant="body2" sx={{ mb: 0.5 }}>
            {questions.length - optional.length} of {questions.length} fields must be answered.
          </Typography>
          <Button disabled={optional.length === 0} onClick={() => actions.editSelected({ required: "TRUE" })}>
            Set all required
          </Button>
          <Button
            color="inherit"
            disabled={optional.length === questions.length}
            onClick={() => actions.editSelected({ required: "" })}
          >
            None
          </Button>
        </Box>
      )}
      <TextField
        select
        label="Move all to the end of"
        value=""
        onChange={(event) => {
          const page = form.pages.find((each) => each.id === event.target.value)!;
          const staying = page.blocks.filter((block) => !selected.includes(block.id));
          actions.move(selected, { into: { holder: page.id, list: "blocks" }, at: staying.length });
        }}
      >
        {form.pages.map((page, at) => (
          <MenuItem key={page.id} value={page.id}>
            {at + 1} {page.title || "Untitled page"}
          </MenuItem>
        ))}
      </TextField>
      <CommonSettings entries={blocks} edit={actions.editSelected} />
      <Typography variant="caption" color="text.secondary">
        Copied with Ctrl+C, they can be pasted into this or another form, with their rules.
      </Typography>
    </Box>
  );
}
