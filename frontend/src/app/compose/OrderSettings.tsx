// What an order costs beside its lines: discounts, shipping, taxes; and whether one of nothing is refused.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Form } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { ORDER } from "../../model/parts";
import { byBands, byChoice, flat, type Measure, MEASURES } from "../../model/shipping";
import { DecimalField } from "../../ui/DecimalField";
import { Condition } from "../follow_ups/Condition";
import { useFieldsOf } from "../follow_ups/fields_of";
import { useBench } from "../workbench/bench";
import { FormulaField } from "./FormulaField";
import { Heading } from "./InspectorFrame";

type Order = Form["order"];
type Discount = Order["discounts"][number];
type Tax = Order["taxes"][number];

const PLAIN_DISCOUNT: Omit<Discount, "id"> = {
  name: "",
  when: "",
  code: "",
  first_day: null,
  last_day: null,
  uses: null,
  percent: "10",
  amount: "",
};

export function OrderSettings() {
  const { form, act, mayEdit, analysis } = useBench();
  const { order } = form;
  const edit = (changes: Partial<Order>) => act({ do: "edit_form", changes: { order: { ...order, ...changes } } });
  const findings = analysis.findings.filter(({ block }) => block === ORDER);
  return (
    <Box role="group" aria-label="The order" sx={{ display: "grid", gap: 1.5 }}>
      <Heading>The order</Heading>
      {findings.map((finding, at) => (
        <Typography key={at} variant="body2" sx={{ color: finding.severity === "error" ? "note.check" : "note.money" }}>
          {finding.message} {finding.remedy}
        </Typography>
      ))}
      <Typography variant="body2">What sending costs</Typography>
      <FormulaField
        part={ORDER}
        setting="shipping"
        text={order.shipping}
        rowKind={null}
        readOnly={!mayEdit}
        onChange={(shipping) => edit({ shipping })}
      />
      {mayEdit && order.shipping.trim() === "" && <ShippingStart />}
      <Discounts order={order} edit={edit} />
      <Taxes taxes={order.taxes} put={(taxes) => edit({ taxes })} />
      <FormControlLabel
        control={<Switch checked={order.refuse_empty} onChange={(_event, refuse_empty) => edit({ refuse_empty })} />}
        label="Refuse an order of nothing"
      />
    </Box>
  );
}

/** Ways to begin with what sending costs; each writes the formula, which is changed like any other then. */
function ShippingStart() {
  const { form, parts, act } = useBench();
  const choices = useFieldsOf(["dropdown", "single_choice"]);
  const begin = (way: string) => {
    if (way === "flat") return act(flat(form));
    if (way in MEASURES) return act(byBands(form, way as Measure));
    const entry = parts.get(way);
    if (entry?.what === "block") act(byChoice(form, entry.part.key));
  };
  return (
    <TextField
      select
      label="Or begin with"
      value=""
      helperText="Bands become a figure, whose line is changed in Figures"
      onChange={(event) => begin(event.target.value)}
    >
      <MenuItem value="flat">one price for every order</MenuItem>
      {Object.entries(MEASURES).map(([measure, { words }]) => (
        <MenuItem key={measure} value={measure}>
          {words}
        </MenuItem>
      ))}
      {choices.map(({ id, words }) => (
        <MenuItem key={id} value={id}>
          what the options of {words} count as, such as countries
        </MenuItem>
      ))}
    </TextField>
  );
}

interface PartProps {
  order: Order;
  edit: (changes: Partial<Order>) => void;
}

function Discounts({ order, edit }: PartProps) {
  const texts = useFieldsOf(["short_text"]);
  const { discounts } = order;
  const put = (next: Discount[]) => edit({ discounts: next });
  return (
    <Box role="group" aria-label="Discounts" sx={{ display: "grid", gap: 1 }}>
      <Typography variant="body2">Taken off</Typography>
      {discounts.map((discount, at) => (
        <DiscountRow
          key={discount.id}
          discount={discount}
          at={at}
          onChange={(changes) => put(discounts.map((each, index) => (index === at ? { ...each, ...changes } : each)))}
          onRemove={() => put(discounts.filter((_each, index) => index !== at))}
        />
      ))}
      {discounts.some(({ code }) => code) && (
        <TextField
          select
          label="Codes are typed into"
          value={order.code_field}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={(event) => edit({ code_field: event.target.value })}
        >
          <MenuItem value="">no field yet</MenuItem>
          {texts.map(({ id, words }) => (
            <MenuItem key={id} value={id}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Box>
        <Button onClick={() => put([...discounts, { ...PLAIN_DISCOUNT, id: newId() }])}>Add a discount</Button>
      </Box>
    </Box>
  );
}

interface RowProps {
  discount: Discount;
  at: number;
  onChange: (changes: Partial<Discount>) => void;
  onRemove: () => void;
}

function DiscountRow({ discount, at, onChange, onRemove }: RowProps) {
  const { mayEdit } = useBench();
  const number = at + 1;
  return (
    <Box
      role="group"
      aria-label={`Discount ${number}`}
      sx={{ display: "grid", gap: 1, pl: 1.5, borderLeft: 2, borderColor: "note.money" }}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 24px", gap: 1 }}>
        <TextField
          label="Name, as visitors read it"
          value={discount.name}
          onChange={(event) => onChange({ name: event.target.value })}
        />
        <IconButton aria-label={`Remove discount ${number}`} onClick={onRemove} sx={{ width: 24, height: 34 }}>
          ×
        </IconButton>
      </Box>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1 }}>
        <DecimalField
          blank
          label="Percent of the lines"
          value={discount.percent}
          onChange={(percent) => onChange({ percent })}
        />
        <TextField
          label="Only with the code"
          value={discount.code}
          onChange={(event) => onChange({ code: event.target.value })}
        />
      </Box>
      {discount.code && <CodeLimits discount={discount} onChange={onChange} />}
      {discount.percent === null && (
        <FormulaField
          part={ORDER}
          setting={`discounts.${at}.amount`}
          text={discount.amount}
          rowKind={null}
          readOnly={!mayEdit}
          onChange={(amount) => onChange({ amount })}
        />
      )}
      <Condition
        part={ORDER}
        setting={`discounts.${at}.when`}
        text={discount.when}
        title="Only when"
        absent="for every order; add a rule"
        onChange={(when) => onChange({ when })}
      />
    </Box>
  );
}

/** When a code counts, and how often in all. */
function CodeLimits({ discount, onChange }: Pick<RowProps, "discount" | "onChange">) {
  const day = (setting: "first_day" | "last_day", label: string) => (
    <TextField
      type="date"
      label={label}
      value={discount[setting] ?? ""}
      slotProps={{ inputLabel: { shrink: true } }}
      onChange={(event) => onChange({ [setting]: event.target.value || null })}
    />
  );
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1 }}>
      {day("first_day", "The code counts from")}
      {day("last_day", "to")}
      <DecimalField
        blank
        whole
        least={0}
        most={99_999}
        label="So often in all"
        help="Empty for any number of times"
        value={discount.uses === null ? null : String(discount.uses)}
        onChange={(uses) => onChange({ uses: uses === null ? null : Number(uses) })}
      />
    </Box>
  );
}

function Taxes({ taxes, put }: { taxes: readonly Tax[]; put: (taxes: Tax[]) => void }) {
  const sold = useFieldsOf(["product", "number", "single_choice", "dropdown", "several_choices"]);
  const wordsOf = new Map(sold.map(({ id, words }) => [id, words]));
  const renderValue = (ids: unknown) =>
    (ids as string[]).map((id) => wordsOf.get(id) ?? "something removed").join(", ") || "all that no other tax names";
  return (
    <Box role="group" aria-label="Taxes" sx={{ display: "grid", gap: 1 }}>
      <Typography variant="body2">Tax</Typography>
      {taxes.map((tax, at) => {
        const change = (changes: Partial<Tax>) =>
          put(taxes.map((each, index) => (index === at ? { ...each, ...changes } : each)));
        return (
          <Box
            key={tax.id}
            role="group"
            aria-label={`Tax ${at + 1}`}
            sx={{ display: "grid", gap: 1, pl: 1.5, borderLeft: 2, borderColor: "note.money" }}
          >
            <Box sx={{ display: "grid", gridTemplateColumns: "1fr 64px 100px 24px", gap: 1 }}>
              <TextField label="Name" value={tax.name} onChange={(event) => change({ name: event.target.value })} />
              <DecimalField
                label="Percent"
                value={tax.percent}
                onChange={(percent) => change({ percent: percent ?? tax.percent })}
              />
              <TextField
                select
                label="Is"
                value={tax.included ? "included" : "added"}
                onChange={(event) => change({ included: event.target.value === "included" })}
              >
                <MenuItem value="included">included</MenuItem>
                <MenuItem value="added">added</MenuItem>
              </TextField>
              <IconButton
                aria-label={`Remove tax ${at + 1}`}
                onClick={() => put(taxes.filter((_each, index) => index !== at))}
                sx={{ width: 24, height: 34 }}
              >
                ×
              </IconButton>
            </Box>
            <TextField
              select
              label="Of"
              value={tax.products}
              slotProps={{ select: { multiple: true, displayEmpty: true, renderValue }, inputLabel: { shrink: true } }}
              onChange={(event) => change({ products: event.target.value as unknown as string[] })}
            >
              {sold.map(({ id, words }) => (
                <MenuItem key={id} value={id}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
            <Condition
              part={ORDER}
              setting={`taxes.${at}.when`}
              text={tax.when}
              title="Only when"
              absent="for every order; add a rule"
              onChange={(when) => change({ when })}
            />
          </Box>
        );
      })}
      <Box>
        <Button
          onClick={() =>
            put([...taxes, { id: newId(), name: "VAT", percent: "19", included: true, products: [], when: "" }])
          }
        >
          Add a tax
        </Button>
      </Box>
    </Box>
  );
}
