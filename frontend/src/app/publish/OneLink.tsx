// A link by hand: values are typed, the form beside shows them, and the link is there to copy, plain or sealed.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, reasonOf } from "../../api/client";
import { CopyField } from "../../ui/CopyField";
import { useBench } from "../workbench/bench";
import { Panel } from "./Layout";
import { tableOfOne, textInBase64 } from "./link_tables";

interface Props {
  values: Readonly<Record<string, string>>;
  setValues: (values: Readonly<Record<string, string>>) => void;
}

export function OneLink({ values, setValues }: Props) {
  const { form, saved, reply, mayEdit } = useBench();
  const queryClient = useQueryClient();
  const given = Object.entries(values).filter(
    ([name, value]) => value && form.links.some((each) => each.name === name),
  );
  const free = given.filter(([name]) => !form.links.find((each) => each.name === name)?.sealed);
  const plain = new URLSearchParams(free).toString();
  const needsSeal = given.length > free.length || form.sealed_only;
  const seal = useMutation({
    mutationFn: async () => {
      const columns = Object.fromEntries(given.map(([name]) => [name, name]));
      const table = textInBase64(tableOfOne(Object.fromEntries(given)));
      const asked = {
        table,
        columns,
        name: given
          .map(([, value]) => value)
          .join(", ")
          .slice(0, 200),
        until: "",
        uses: null,
        email: "",
      };
      const planned = await api.planLinks(reply.id, asked);
      const [wrong] = planned.wrong;
      if (wrong) throw new Error(`No link was made: the line ${wrong.message}.`);
      const { batch } = await api.makeLinks(reply.id, asked);
      return (await api.sealedLinks(reply.id, batch, 0)).links[0]!.address;
    },
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["links", reply.id] }),
  });
  return (
    <Panel title="A link by hand" lead="Numbers with a point, dates such as 2026-05-31, options by code or label.">
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(180px, 1fr))", gap: 1.5 }}>
        {form.links.map(({ name }) => (
          <TextField
            key={name}
            label={name}
            value={values[name] ?? ""}
            onChange={(event) => {
              seal.reset();
              setValues({ ...values, [name]: event.target.value });
            }}
          />
        ))}
      </Box>
      {!needsSeal && <CopyField label="the plain link" text={`${saved.address}${plain && `?${plain}`}`} wrap />}
      {seal.data && <CopyField label="the sealed link" text={seal.data} wrap />}
      {seal.isError && <Alert severity="error">{reasonOf(seal.error)}</Alert>}
      {mayEdit && saved.liveEdition !== null && (
        <Box>
          <Button
            variant="outlined"
            disabled={given.length === 0}
            loading={seal.isPending}
            onClick={() => seal.mutate()}
          >
            Make a sealed link
          </Button>
        </Box>
      )}
    </Panel>
  );
}
