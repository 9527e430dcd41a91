// The funnel: of all who saw the form, how many came how far; where they left, and what was in their way.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { reasonOf } from "../../api/client";
import type { AskedColumnReply, AskingReply, Condition, FunnelReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { SERIF } from "../../theme/theme";
import { PRESENTATIONS } from "../compose/FormSettings";
import { Waiting } from "../Waiting";
import { Days } from "./FunnelDays";
import { FieldsTable, GroupsTable } from "./FunnelTables";
import { StepBars } from "./FunnelSteps";
import { askedOf, columnsById, named } from "../filter/asked";
import type { Look } from "./look";
import { inTime, share } from "../../text/visits";

interface Props {
  formId: string;
  asking: AskingReply;
  look: Look;
  onLook: (changes: Partial<Look>) => void;
}

const APART = {
  width: "the width of the screen",
  edition: "edition",
  way: "how they came",
  page: "the page that they came from",
  link: "sealed links",
};
const WINDOWS = { "": "any screen", narrow: "narrow screens", medium: "medium screens", wide: "wide screens" };

export function FunnelView({ formId, asking, look, onLook }: Props) {
  const { apart, window, presentation } = look;
  const asked = { ...askedOf(look), by: apart, width: window, presentation };
  const found = useQuery({ ...queries.funnel(formId, asked), placeholderData: keepPreviousData });
  if (found.isPending) return <Waiting />;
  // What of the filter is wrong is told above.
  if (found.isError) return <Typography role="alert">{reasonOf(found.error)}</Typography>;
  const funnel = found.data;
  return (
    <Box sx={{ flex: 1, overflow: "auto", minHeight: 0, pb: 2 }}>
      <Unheeded funnel={funnel} look={look} columns={asking.columns} />
      {funnel.all.seen === 0 ? (
        <Typography sx={{ maxWidth: 560 }}>
          Nobody has been counted {look.conditions.length > 0 || window ? "whom the filter chooses" : "yet"}. Everybody
          who opens the published form in a browser is counted, but for those who ask not to be tracked: without
          cookies, and as numbers alone after a day.
        </Typography>
      ) : (
        <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0,1fr) 340px", gap: 2, alignItems: "start" }}>
          <Box sx={{ display: "grid", gap: 2 }}>
            <Card title="How far visitors come" aside={<Choices {...{ funnel, look, onLook }} />}>
              <Headline funnel={funnel} />
              <StepBars funnel={funnel} />
            </Card>
            <Card
              title="Told apart by"
              aside={
                <Choice
                  label="Told apart by"
                  value={apart}
                  options={APART}
                  onChange={(chosen) => onLook({ apart: chosen as Look["apart"] })}
                />
              }
            >
              <GroupsTable funnel={funnel} name={APART[apart]} onChoose={chooserOf(look, onLook)} />
            </Card>
            <Card title="By day">
              <Days {...funnel} />
            </Card>
          </Box>
          <Box sx={{ display: "grid", gap: 2 }}>
            <Card title="Where they left">
              <FieldsTable
                fields={funnel.left_at}
                all={funnel.all.seen - funnel.all.sent}
                nothing="Nobody has left at a field."
              />
            </Card>
            <Card title="Where something was wrong">
              <FieldsTable
                fields={funnel.wrong}
                all={funnel.all.started}
                nothing="Nobody was told that something was wrong."
              />
            </Card>
          </Box>
        </Box>
      )}
    </Box>
  );
}

function Card({ title, aside, children }: { title: string; aside?: React.ReactNode; children: React.ReactNode }) {
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ bgcolor: "background.paper", border: 1, borderColor: "divider", borderRadius: 1, p: 2, minWidth: 0 }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, mb: 1, minHeight: 32 }}>
        <Typography variant="h3" component="h2" color="text.secondary" sx={{ flex: 1 }}>
          {title}
        </Typography>
        {aside}
      </Box>
      {children}
    </Box>
  );
}

function Headline({ funnel }: { funnel: FunnelReply }) {
  const { all, seconds } = funnel;
  return (
    <Typography sx={{ fontFamily: SERIF, fontSize: 18, lineHeight: "24px", mb: 1.5 }}>
      {share(all.sent, all.seen)} of {all.seen.toLocaleString("en")} visitors sent it
      {seconds !== null && (
        <Typography component="span" variant="body2" color="text.secondary">
          , half of them within {inTime(seconds)}
        </Typography>
      )}
    </Typography>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  options: Readonly<Record<string, string>>;
  onChange: (value: string) => void;
}

function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <TextField
      select
      size="small"
      fullWidth={false}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ htmlInput: { "aria-label": label }, select: { displayEmpty: true } }}
      sx={{ flex: "none", "& .MuiSelect-select": { py: 0.5, fontSize: 13 } }}
    >
      {Object.entries(options).map(([code, title]) => (
        <MenuItem key={code} value={code}>
          {title}
        </MenuItem>
      ))}
    </TextField>
  );
}

function Choices({ funnel, look, onLook }: { funnel: FunnelReply } & Pick<Props, "look" | "onLook">) {
  const ways = funnel.presentations.map(({ value, seen }): [string, string] => [
    value,
    `${PRESENTATIONS[value as keyof typeof PRESENTATIONS]} (${seen.toLocaleString("en")})`,
  ]);
  return (
    <>
      {ways.length > 1 && (
        <Choice
          label="Presented"
          value={funnel.presentation}
          options={Object.fromEntries(ways)}
          onChange={(presentation) => onLook({ presentation: presentation as Look["presentation"] })}
        />
      )}
      <Choice
        label="Screens"
        value={look.window}
        options={WINDOWS}
        onChange={(window) => onLook({ window: window as Look["window"] })}
      />
    </>
  );
}

/** Choosing a row leaves only its visits: by the filter, or by the width of the screen. */
function chooserOf({ apart, conditions }: Look, onLook: Props["onLook"]): (value: string) => void {
  if (apart === "width") return (window) => onLook({ window: window as Look["window"] });
  const column = `response.${apart}`;
  const how = apart === "way" || apart === "link" ? ("any_of" as const) : ("is" as const);
  const others = conditions.filter((each) => each.column !== column);
  return (value) =>
    onLook({
      conditions: [...others, { column, how, values: [value] }],
    });
}

/** What of the filter can't be asked of those who did not send. */
function Unheeded({
  funnel,
  look,
  columns,
}: {
  funnel: FunnelReply;
  look: Look;
  columns: readonly AskedColumnReply[];
}) {
  const byId = columnsById(columns);
  const nameOf = ({ column }: Condition) => {
    const known = byId.get(column);
    return known ? named(known) : "a field that is gone";
  };
  const names = funnel.unheeded.map((at) => nameOf(look.conditions[at]!));
  if (funnel.words_unheeded) names.push(`“${look.words}”`);
  if (names.length === 0) return null;
  return (
    <Alert severity="info" sx={{ mb: 2 }}>
      The funnel is of all who came, whether they sent something or not: {names.join(", ")} can’t be asked of them and
      leave{names.length === 1 ? "s" : ""} nobody out here.
    </Alert>
  );
}
