// What an area is for, in one line, until it is put away; with an example among the team's forms.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { queries } from "../../api/queries";
import { inStorage } from "../../ui/in_storage";
import { useBench } from "../workbench/bench";
import { AREA_HELP } from "./topics";

const PLACE = "codexa-lines-read";

const linesRead = (): readonly string[] =>
  inStorage(
    () => localStorage,
    (place) => JSON.parse(place.getItem(PLACE) ?? "[]") as string[],
  ) ?? [];

export function AreaLine({ area }: { area: string }) {
  const { reply, form } = useBench();
  const [read, setRead] = useState(linesRead);
  const help = AREA_HELP[area];
  const shown = help !== undefined && !read.includes(area);
  const forms = useQuery({ ...queries.forms(), enabled: shown });
  if (!shown) return null;
  const example = forms.data?.forms.find(({ id, name }) => name === help.example && id !== reply.id);
  const put = () => {
    const next = [...read, area];
    setRead(next);
    inStorage(
      () => localStorage,
      (place) => place.setItem(PLACE, JSON.stringify(next)),
    );
  };
  return (
    <Box
      role="note"
      aria-label="What this area is for"
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1.5,
        px: 2,
        minHeight: 32,
        fontSize: 13.5,
        bgcolor: "noteTint.calculation",
        borderBottom: 1,
        borderColor: "divider",
      }}
    >
      <span>{help.line}</span>
      {example && form.name !== help.example && (
        <Button
          size="small"
          component={Link}
          to={`/forms/${example.id}/${area}`}
          sx={{ py: 0, whiteSpace: "nowrap", flexShrink: 0 }}
        >
          Show me: {example.name}
        </Button>
      )}
      <Box sx={{ flex: 1 }} />
      <IconButton aria-label="Put this line away" onClick={put} sx={{ width: 24, height: 24, fontSize: 14 }}>
        ×
      </IconButton>
    </Box>
  );
}
