// Who and when: off line, times, limits and a password; what visitors read instead is seen beside.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { reasonOf } from "../../api/client";
import type { WhoAndWhenReply } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { DecimalField } from "../../ui/DecimalField";
import { LongTextField } from "../../ui/LongTextField";
import { useWordsOf } from "../brand/words_of";
import { useFieldsOf } from "../follow_ups/fields_of";
import { useBench } from "../workbench/bench";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { FillsIn } from "./FillsIn";
import { Layout, Panel } from "./Layout";
import { LivePicture } from "./LivePicture";
import { useAccess } from "./useAccess";

type Access = WhoAndWhenReply["access"];
type State = "early" | "over" | "full" | "offline" | "password" | "sign-in";

const WORDS = [
  { setting: "early", message: "notYet", label: "Before it opens" },
  { setting: "over", message: "over", label: "After it has closed" },
  { setting: "full", message: "full", label: "When it is full" },
  { setting: "offline", message: "offline", label: "While it is off line" },
] as const;

const KEPT_DAYS = 14; // until another number is typed

export function WhoSection() {
  const { known, set } = useAccess();
  if (known.isError) return <Alert severity="error">{reasonOf(known.error)}</Alert>;
  if (!known.data) return null;
  return <Who known={known.data} turn={known.dataUpdatedAt} set={set} />;
}

interface WhoProps {
  known: WhoAndWhenReply;
  /** When that was read: the picture is another one after each change. */
  turn: number;
  set: ReturnType<typeof useAccess>["set"];
}

function Who({ known, turn, set }: WhoProps) {
  const { reply, saved, form, mayEdit } = useBench();
  const words = useWordsOf(form);
  const dayAndTime = useDayAndTime();
  const fields = useFieldsOf(["short_text", "email", "phone", "number", "name"]);
  const [typed, setTyped] = useState<Access | null>(null);
  const [picture, setPicture] = useState<State | "now">("now");
  const access = typed ?? known.access;
  const edit = (changes: Partial<Access>) => setTyped({ ...access, ...changes });
  const changed = typed !== null && JSON.stringify(typed) !== JSON.stringify(known.access);
  const moments = [
    known.opens && `opens on ${dayAndTime(known.opens)}`,
    known.closes && `closes on ${dayAndTime(known.closes)}`,
    known.access.most !== null && `${known.taken} of ${known.access.most} responses are in`,
  ].filter(Boolean);
  return (
    <Layout
      title="Who and when"
      lead={`It holds at once, without publishing. Times are those of ${form.time_zone}.`}
      picture={
        <>
          <TextField
            select
            label="What visitors see"
            value={picture}
            onChange={(event) => setPicture(event.target.value as State | "now")}
          >
            <MenuItem value="now">Now</MenuItem>
            {WORDS.map(({ setting, label }) => (
              <MenuItem key={setting} value={setting}>
                {label}
              </MenuItem>
            ))}
            <MenuItem value="sign-in">When a guest has to sign in</MenuItem>
            <MenuItem value="password">When a password is asked for</MenuItem>
          </TextField>
          {picture === "now" && saved.liveEdition === null ? (
            <Typography color="text.secondary">Nobody can reach it: it was never published.</Typography>
          ) : (
            <LivePicture
              title={picture === "now" ? "As it opens now" : "Instead of the form"}
              src={
                picture === "now"
                  ? `${new URL(saved.address).pathname.replace("/f/", "/embed/")}?codexa-turn=${turn}`
                  : `/preview/${reply.id}/notice/${picture}?codexa-turn=${turn}`
              }
              address={saved.address}
            />
          )}
        </>
      }
    >
      <Box
        component="fieldset"
        disabled={!mayEdit}
        sx={{ border: 0, p: 0, m: 0, minWidth: 0, display: "grid", gap: 2 }}
      >
        <Panel title="On line">
          <FormControlLabel
            control={
              <Switch
                checked={known.access.online}
                disabled={!mayEdit}
                onChange={(_event, online) => {
                  setTyped(null);
                  set.mutate({ access: { ...known.access, online } });
                }}
              />
            }
            label={known.access.online ? "The form can be filled in" : "Taken off line: nobody can fill it in"}
          />
        </Panel>
        <FillsIn access={access} edit={edit} />
        <Panel title="Times">
          <Box sx={{ display: "flex", gap: 1.5 }}>
            {(["opens", "closes"] as const).map((name) => (
              <TextField
                key={name}
                type="datetime-local"
                label={name === "opens" ? "Opens" : "Closes"}
                value={access[name].slice(0, 16)}
                onChange={(event) => edit({ [name]: event.target.value })}
                slotProps={{ inputLabel: { shrink: true } }}
                sx={{ flex: 1 }}
              />
            ))}
          </Box>
          {moments.length > 0 && <Typography color="text.secondary">It {moments.join(", ")}.</Typography>}
        </Panel>
        <Panel title="How many">
          <DecimalField
            whole
            blank
            least={1}
            most={100_000_000}
            label="Responses in all"
            help={`Blank for any number. ${counted(reply.responses, "response")} so far; those removed or expired don’t count`}
            value={access.most === null ? null : String(access.most)}
            onChange={(most) => edit({ most: most === null ? null : Number(most) })}
          />
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.5, alignItems: "start" }}>
            <DecimalField
              whole
              blank
              least={1}
              most={100_000_000}
              label="Responses of one person"
              help="Blank for any number"
              value={access.most_each === null ? null : String(access.most_each)}
              onChange={(most) =>
                edit({
                  most_each: most === null ? null : Number(most),
                  each: most === null ? "" : access.each || (fields[0]?.id ?? ""),
                })
              }
            />
            {access.most_each !== null && (
              <TextField
                select
                label="A person is known by"
                value={access.each}
                helperText="Who leaves it blank is not counted"
                onChange={(event) => edit({ each: event.target.value })}
              >
                {fields.map(({ id, words }) => (
                  <MenuItem key={id} value={id}>
                    {words}
                  </MenuItem>
                ))}
              </TextField>
            )}
          </Box>
        </Panel>
        <Panel
          title="Going on later"
          lead="What a visitor has entered is kept on their device for a week in any case. With this they can have it kept here, too, and go on anywhere by a private link, shown or sent by mail."
        >
          <FormControlLabel
            control={
              <Switch
                checked={access.kept_days !== null}
                disabled={!mayEdit}
                onChange={(_event, on) => edit({ kept_days: on ? KEPT_DAYS : null })}
              />
            }
            label="Answers can be kept here"
          />
          {access.kept_days !== null && (
            <DecimalField
              whole
              least={1}
              most={365}
              label="For how many days"
              help={`After each time that they are kept. ${counted(known.kept, "visitor")} can go on now`}
              value={String(access.kept_days)}
              onChange={(days) => edit({ kept_days: Number(days) })}
            />
          )}
        </Panel>
        <Panel title="What visitors read instead" lead="Blank for the usual words, which Brand has for all of them.">
          {WORDS.map(({ setting, message, label }) => (
            <LongTextField
              key={setting}
              lines={1}
              label={label}
              value={access[setting]}
              placeholder={words.own(message)}
              onChange={(event) => edit({ [setting]: event.target.value })}
            />
          ))}
        </Panel>
        {set.isError && <Alert severity="error">{reasonOf(set.error)}</Alert>}
        {mayEdit && (
          <Box sx={{ position: "sticky", bottom: -20, py: 1.5, bgcolor: "background.default", zIndex: 2 }}>
            <Button
              variant="contained"
              disabled={!changed}
              loading={set.isPending}
              onClick={() => set.mutate({ access }, { onSuccess: () => setTyped(null) })}
            >
              {set.isSuccess && !changed ? "Saved" : "Save who, times, limits and words"}
            </Button>
          </Box>
        )}
        <Password has={known.has_password} set={set} />
      </Box>
    </Layout>
  );
}

function Password({ has, set }: { has: boolean; set: ReturnType<typeof useAccess>["set"] }) {
  const [password, setPassword] = useState("");
  const put = (next: string) => set.mutate({ password: next }, { onSuccess: () => setPassword("") });
  return (
    <Panel
      title="Password"
      lead={
        has ? "Visitors type a password before they see the form." : "Without one, whoever has the link sees the form."
      }
    >
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          if (password) put(password);
        }}
        sx={{ display: "flex", gap: 1 }}
      >
        <TextField
          label={has ? "Another password" : "Password"}
          value={password}
          autoComplete="off"
          onChange={(event) => setPassword(event.target.value)}
          sx={{ flex: 1 }}
        />
        <Button type="submit" variant="outlined" disabled={!password} loading={set.isPending}>
          Set
        </Button>
        {has && (
          <Button color="inherit" onClick={() => put("")}>
            Take away
          </Button>
        )}
      </Box>
    </Panel>
  );
}
