// The draft as visitors will see it, at the width of their device; beside it, why anything is as it is.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { visuallyHidden } from "@mui/utils";
import { useEffect, useRef, useState } from "react";
import { api } from "../../api/client";
import { useBench } from "../workbench/bench";
import { Why } from "./Why";

const WIDTHS = { phone: 375, tablet: 768, desk: 1180 } as const;
type Device = keyof typeof WIDTHS;

export function Preview() {
  const { form, reply, saved, saveState } = useBench();
  const frame = useRef<HTMLIFrameElement>(null);
  const [device, setDevice] = useState<Device>("tablet");
  const [answers, setAnswers] = useState<Record<string, unknown>>({});
  const [seed, setSeed] = useState(1);
  const [turn, setTurn] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    const hear = (event: MessageEvent<{ codexa?: string; answers?: Record<string, unknown> }>) => {
      if (event.origin !== origin || event.source !== frame.current?.contentWindow) return;
      if (event.data.codexa === "answers") setAnswers(event.data.answers ?? {});
    };
    addEventListener("message", hear);
    return () => removeEventListener("message", hear);
  }, []);

  const fill = async () => {
    try {
      const sample = await api.sample(reply.id, seed);
      frame.current?.contentWindow?.postMessage({ codexa: "fill", answers: sample.answers }, origin);
      setSeed(seed + 1);
      setProblem(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const again = () => {
    setAnswers({});
    setTurn(turn + 1);
  };
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 340px", height: "100%" }}>
      <Typography component="h1" sx={visuallyHidden}>
        Preview of {form.name}
      </Typography>
      <Box sx={{ display: "flex", flexDirection: "column", minWidth: 0, minHeight: 0 }}>
        <Box sx={{ display: "flex", alignItems: "center", gap: 1, px: 2, py: 1 }}>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={device}
            aria-label="Width of the device"
            onChange={(_event, chosen: Device | null) => chosen && setDevice(chosen)}
          >
            {Object.entries(WIDTHS).map(([name, width]) => (
              <ToggleButton key={name} value={name} sx={{ px: 1.5, textTransform: "none", color: "text.primary" }}>
                {name[0]!.toUpperCase() + name.slice(1)} · {width}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Box sx={{ flex: 1 }} />
          <Button onClick={() => void fill()}>Fill with sample answers</Button>
          <Button color="inherit" onClick={again}>
            Start again
          </Button>
        </Box>
        {problem && (
          <Typography role="alert" sx={{ px: 2, pb: 1, color: "note.check" }}>
            {problem}
          </Typography>
        )}
        <Box sx={{ flex: 1, minHeight: 0, overflow: "auto", px: 2, pb: 2 }}>
          <Box
            // Another revision, another page: what is shown is always the draft as it was saved.
            key={`${saved.revision} ${turn}`}
            ref={frame}
            component="iframe"
            title="Preview"
            src={`/preview/${reply.id}`}
            sx={{
              display: "block",
              width: WIDTHS[device],
              maxWidth: "none",
              height: "calc(100% - 4px)",
              mx: "auto",
              border: 1,
              borderColor: "divider",
              borderRadius: 1,
              bgcolor: "sheet.paper",
            }}
          />
        </Box>
      </Box>
      <Why answers={answers} stale={saveState !== "saved"} />
    </Box>
  );
}
