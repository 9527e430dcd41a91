// The draft as visitors will see it, at the width of their device; beside it, why anything is as it is.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { visuallyHidden } from "@mui/utils";
import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { api } from "../../api/client";
import type { Form } from "../../api/generated/wire";
import type { Trial } from "../../model/parts";
import { useStable } from "../../ui/useStable";
import { PRESENTATIONS } from "../compose/FormSettings";
import { keepAsTrial } from "../trials/keep";
import { useBench } from "../workbench/bench";
import { type As, AsVisitor, GUEST } from "./AsVisitor";
import { Why } from "./Why";

const WIDTHS = { phone: 375, tablet: 768, desk: 1180 } as const;
type Device = keyof typeof WIDTHS;

/** What the form in the frame tells. */
interface Heard {
  codexa?: "ready" | "answers" | "block";
  answers?: Record<string, unknown>;
  block?: string;
}

/** What a link would bring, from text like "kind=school&code=42". */
const linkOf = (text: string): Record<string, string> => Object.fromEntries(new URLSearchParams(text.trim()));

export function Preview() {
  const bench = useBench();
  const { form, reply, saved, part, trying, setTrying, mayEdit, act } = bench;
  const [told, setTold] = useState("");
  const [search] = useSearchParams();
  const trial = form.trials.find((each) => each.id === search.get("trial"));
  const frame = useRef<HTMLIFrameElement>(null);
  // Another way than the form's own, until it is left.
  const [shown, setShown] = useState<Form["presentation"]>(form.presentation);
  const [as, setAs] = useState<As>(GUEST);
  const [device, setDevice] = useState<Device>("tablet");
  const [answers, setAnswers] = useState<Record<string, unknown>>(() => ({ ...trial?.answers }));
  const [link, setLink] = useState(() => new URLSearchParams(trial?.link).toString());
  const [asked, setAsked] = useState<{ address: string | null; follows: boolean }>({ address: part, follows: true });
  const [seed, setSeed] = useState(1);
  const [turn, setTurn] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);

  const put = (given: Record<string, unknown>) =>
    frame.current?.contentWindow?.postMessage({ codexa: "fill", answers: given }, origin);
  const hear = useStable((event: MessageEvent<Heard>) => {
    if (event.origin !== origin || event.source !== frame.current?.contentWindow) return;
    const told = event.data;
    if (told.codexa === "answers") setAnswers(told.answers ?? {});
    if (told.codexa === "block" && asked.follows) setAsked({ address: told.block ?? null, follows: true });
    // The draft was saved anew, or a trial is shown: what is answered is filled in again.
    if (told.codexa === "ready" && Object.keys(answers).length > 0) put(answers);
  });
  useEffect(() => {
    addEventListener("message", hear);
    return () => removeEventListener("message", hear);
  }, [hear]);
  const keep = async () => {
    try {
      const tried = { ...trying, answers, link: linkOf(link), day: null, visitor: as.facts };
      const { outcome } = await api.outcome(reply.id, tried);
      const kept = keepAsTrial(bench, tried, outcome);
      setTrying({ ...tried, name: `Trial “${kept.name}”` });
      setTold(`Kept as “${kept.name}”: its name and what it expects are in Trials.`);
      setProblem(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };

  const keepIn = ({ id, name }: Trial) => {
    act({ do: "edit", parts: [id], changes: { answers, link: linkOf(link), visitor: as.facts } });
    setTold(`“${name}” has these answers now; what comes out of them is in Trials.`);
  };

  const fill = async () => {
    try {
      const sample = await api.sample(reply.id, seed);
      // Should the form not be drawn yet, it is filled in once it says that it is.
      setAnswers(sample.answers);
      put(sample.answers);
      setSeed(seed + 1);
      setProblem(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const query = [link, shown !== form.presentation && `codexa-shown=${shown}`, as.known && `codexa-visitor=${as.known}`]
    .filter(Boolean)
    .join("&");
  const address = `/preview/${reply.id}${query && `?${query}`}`;
  const isBlank = Object.keys(answers).length === 0;
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
        <Box
          sx={{
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            gap: 0.5,
            px: 2,
            py: 1,
            "& .MuiButton-root": { px: 1 },
          }}
        >
          <ToggleButtonGroup
            exclusive
            size="small"
            value={device}
            aria-label="Width of the device"
            onChange={(_event, chosen: Device | null) => chosen && setDevice(chosen)}
          >
            {Object.entries(WIDTHS).map(([name, width]) => (
              <ToggleButton key={name} value={name} sx={{ px: 1, textTransform: "none", color: "text.primary" }}>
                {name[0]!.toUpperCase() + name.slice(1)} · {width}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <TextField
            select
            label="Shown"
            value={shown}
            onChange={(event) => setShown(event.target.value as typeof shown)}
            sx={{ ml: 0.5, width: 196 }}
          >
            {Object.entries(PRESENTATIONS).map(([way, title]) => (
              <MenuItem key={way} value={way}>
                {title}
              </MenuItem>
            ))}
          </TextField>
          <AsVisitor label="Seen by" value={as} onChange={setAs} />
          <Box sx={{ flex: 1 }} />
          <LinkField value={link} onChange={setLink} />
          <Button onClick={() => void fill()}>Fill with sample answers</Button>
          {mayEdit && trial && (
            <Button disabled={isBlank} onClick={() => keepIn(trial)}>
              Keep in this trial
            </Button>
          )}
          {mayEdit && (
            <Button disabled={isBlank} onClick={() => void keep()}>
              {trial ? "Keep as another" : "Keep as trial"}
            </Button>
          )}
          <Button color="inherit" onClick={again}>
            Start again
          </Button>
        </Box>
        <Typography role="status" variant="body2" sx={{ px: 2, pb: told ? 1 : 0, color: "text.secondary" }}>
          {told}
        </Typography>
        {problem && (
          <Typography role="alert" sx={{ px: 2, pb: 1, color: "note.check" }}>
            {problem}
          </Typography>
        )}
        <Box sx={{ flex: 1, minHeight: 0, overflow: "auto", px: 2, pb: 2 }}>
          <Box
            // Another revision, another page: what is shown is always the draft as it was saved.
            key={`${saved.revision} ${turn} ${address}`}
            ref={frame}
            component="iframe"
            title="Preview"
            src={address}
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
      <Why
        answers={answers}
        link={linkOf(link)}
        visitor={as.facts}
        asked={asked.address}
        onAsk={(address) => setAsked({ address, follows: false })}
        follows={asked.follows}
        onFollow={(follows) => setAsked({ ...asked, follows })}
      />
    </Box>
  );
}

/** What a link would bring; taken up once it is left, since the form begins anew with it. */
function LinkField({ value, onChange }: { value: string; onChange: (link: string) => void }) {
  const [typed, setTyped] = useState(value);
  const keep = () => onChange(new URLSearchParams(typed.trim().replace(/^\?/, "")).toString());
  return (
    <TextField
      label="Link brings"
      placeholder="kind=school"
      title="Values that a link would bring, as they stand behind the question mark: kind=school&code=42. Formulas read them as link.kind and link.code."
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === "Enter" && keep()}
      sx={{ width: 112 }}
    />
  );
}
