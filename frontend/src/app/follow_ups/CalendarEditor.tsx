// A calendar entry: in which calendar, from when, called what, where, and who is invited.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { queries } from "../../api/queries";
import type { FollowUp } from "../../model/parts";
import { LongTextField } from "../../ui/LongTextField";
import { OneOfField } from "../../ui/OneOfField";
import { useBench } from "../workbench/bench";
import { Condition } from "./Condition";

type CalendarFollowUp = Extract<FollowUp, { kind: "calendar" }>;
type Choice = CalendarFollowUp["calendars"][number];

interface Props {
  followUp: CalendarFollowUp;
  edit: (changes: Partial<CalendarFollowUp>) => void;
}

const DATED: readonly string[] = ["slot", "date", "date_time"];

export function CalendarEditor({ followUp, edit }: Props) {
  const { parts } = useBench();
  const { calendars } = followUp;
  const fields = [...parts.values()].filter((each) => each.what === "block" && each.kind === null);
  const of = (types: readonly string[]) =>
    fields
      .filter((each) => "type" in each.part && types.includes(each.part.type))
      .map(({ id, number, title }) => ({ value: id, label: `${number} ${title}` }));
  const put = (at: number, changes: Partial<Choice>) =>
    edit({ calendars: calendars.with(at, { ...calendars[at]!, ...changes }) });
  const text = (setting: "entry_title" | "entry_place", label: string, help: string) => (
    <TextField
      label={label}
      value={followUp[setting]}
      helperText={help}
      data-values=""
      onChange={(event) => edit({ [setting]: event.target.value })}
    />
  );
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      {calendars.map((choice, at) => (
        <Box key={at} sx={{ display: "grid", gap: 0.5 }}>
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr auto", gap: 1, alignItems: "center" }}>
            <OneCalendar at={at} choice={choice} put={(changes) => put(at, changes)} />
            <IconButton
              aria-label={`Leave calendar ${at + 1} out`}
              onClick={() => edit({ calendars: calendars.toSpliced(at, 1) })}
              sx={{ width: 28, height: 28, fontSize: 16 }}
            >
              ×
            </IconButton>
          </Box>
          <Condition
            part={followUp.id}
            setting={`calendars.${at}.when`}
            text={choice.when}
            title="In this one when"
            absent={at === 0 ? "for every response; add a rule" : "otherwise; add a rule"}
            onChange={(when) => put(at, { when })}
          />
        </Box>
      ))}
      <Button
        variant="outlined"
        sx={{ justifySelf: "start" }}
        onClick={() => edit({ calendars: [...calendars, { calendar: "", when: "" }] })}
      >
        Add a calendar
      </Button>
      <OneOfField
        label="From when"
        value={followUp.entry}
        none="nothing"
        choices={of(DATED)}
        gone="a field that is gone"
        onPick={(entry) => edit({ entry })}
      />
      {text("entry_title", "Called", "With values in braces, such as {name}; blank for the form’s title")}
      {text("entry_place", "Where", "With values in braces, such as {site.label}")}
      <LongTextField
        label="What else stands there"
        attributes={{ "data-values": "" }}
        value={followUp.text}
        onChange={(event) => edit({ text: event.target.value })}
      />
      <OneOfField
        label="Who is invited"
        value={followUp.guest}
        none="nothing"
        choices={of(["email"])}
        gone="a field that is gone"
        onPick={(guest) => edit({ guest })}
      />
      <TextField
        type="number"
        label="Minutes long, where there is no end"
        value={followUp.minutes}
        sx={{ maxWidth: 280 }}
        slotProps={{ htmlInput: { min: 1, max: 10_080 } }}
        onChange={(event) =>
          edit({ minutes: Math.min(10_080, Math.max(1, Math.trunc(Number(event.target.value)) || 1)) })
        }
      />
      <Typography variant="body2" color="text.secondary">
        The same entry is changed where the booking moves, and taken out where it is cancelled or denied. Calendars are
        added under{" "}
        <Link component={RouterLink} to="/team/calendars">
          Team
        </Link>
        .
      </Typography>
    </Box>
  );
}

function OneCalendar({ at, choice, put }: { at: number; choice: Choice; put: (changes: Partial<Choice>) => void }) {
  const known = useQuery(queries.calendars()).data?.calendars ?? [];
  return (
    <OneOfField
      label={at === 0 ? "In the calendar" : "Or in the calendar"}
      value={choice.calendar}
      none="none yet"
      choices={known.map(({ id, name }) => ({ value: id, label: name }))}
      gone="a calendar that is gone"
      onPick={(calendar) => put({ calendar })}
    />
  );
}
