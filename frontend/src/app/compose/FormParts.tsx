// The parts of the form that groups fill in once it is handed in, in the order in which a response goes through them.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useBench } from "../workbench/bench";
import { Heading } from "./InspectorFrame";

export function FormParts() {
  const { form, select, actions } = useBench();
  return (
    <Box component="section" aria-label="Parts for others" sx={{ display: "grid", gap: 1 }}>
      <Heading>Parts for others</Heading>
      <Typography variant="body2" color="text.secondary">
        What a group fills in once the form is handed in, such as a review. A response goes from part to part, in this
        order.
      </Typography>
      {form.parts.map((part, at) => (
        <Button
          key={part.id}
          color="inherit"
          size="small"
          onClick={() => select(part.id)}
          sx={{ justifyContent: "start", textAlign: "left" }}
        >
          {at + 1}. {part.name || "Untitled part"}
        </Button>
      ))}
      <Button sx={{ justifySelf: "start" }} onClick={() => actions.addFormPart()}>
        Add a part
      </Button>
    </Box>
  );
}
