// Something to order: its picture, its price or those of its options, what is left, and how many.
import type { BlockState, ProductFace } from "../../api/generated/wire";
import { RadioSet } from "../choice_set";
import { type InputProps, partsOf, shownText, textOf } from "../input";
import { Stepper } from "../stepper";

export function ProductInput(props: InputProps<ProductFace>) {
  const { block } = props;
  return (
    <div className="cx-product">
      {block.picture && <img src={block.picture} alt={block.alternative} loading="lazy" />}
      <div className="cx-product-ways">{block.options.length > 0 ? <Ways {...props} /> : <OneWay {...props} />}</div>
    </div>
  );
}

/** What a product or an option costs, and what is left of it: the id of the option, or "". */
function Told({ of, facts }: { of: string; facts: BlockState }) {
  const gone = facts.gone?.[of];
  const left = facts.left?.[of];
  return (
    <>
      {facts.prices?.[of] && <span className="cx-price">{facts.prices[of]}</span>}
      {gone !== undefined && <span className="cx-gone">{gone}</span>}
      {left !== undefined && <span className="cx-left">{left}</span>}
    </>
  );
}

function OneWay(props: InputProps<ProductFace>) {
  const { block, facts, answer } = props;
  return (
    <div className="cx-way">
      <span>
        <Told of="" facts={facts} />
      </span>
      {block.quantity === "here" && (
        <Stepper
          {...props}
          name={shownText(facts, "label", block.label)}
          labelledBy={`${props.controlId}-label`}
          answer={textOf(answer)}
          gone={facts.gone?.[""] !== undefined}
        />
      )}
    </div>
  );
}

function Ways(props: InputProps<ProductFace>) {
  const { block, facts, answer, controlId, describedBy, invalid, onChange } = props;
  const labels = block.options.map((each, at) => shownText(facts, `options.${at}.label`, each.label) || "…");
  if (block.quantity === "apart") {
    const told = (id: string) => [facts.prices?.[id], facts.gone?.[id] ?? facts.left?.[id]].filter(Boolean).join(" · ");
    const chosen = textOf(answer) || null;
    const options = block.options.map(({ id }, at) => ({
      id,
      label: [labels[at], told(id)].filter(Boolean).join(" · "),
      barred: facts.gone?.[id] !== undefined && chosen !== id,
    }));
    return <RadioSet {...props} options={options} chosen={chosen} arrangement="column" onChoose={onChange} />;
  }
  const given = partsOf(answer);
  const put = (id: string, pieces: string | null) => {
    const next = Object.entries({ ...given, [id]: pieces }).filter(([, each]) => each !== null);
    onChange(next.length > 0 ? Object.fromEntries(next) : null);
  };
  return (
    <div
      id={controlId}
      role="group"
      tabIndex={-1}
      aria-labelledby={`${controlId}-label`}
      aria-describedby={describedBy}
      data-invalid={invalid || undefined}
    >
      {block.options.map(({ id }, at) => (
        <div className="cx-way" key={id}>
          <span id={`${controlId}-${id}-way`}>
            {labels[at]} <Told of={id} facts={facts} />
          </span>
          <Stepper
            {...props}
            controlId={`${controlId}-${id}`}
            name={labels[at]!}
            labelledBy={`${controlId}-label ${controlId}-${id}-way`}
            answer={textOf(given[id] ?? null)}
            gone={facts.gone?.[id] !== undefined}
            onChange={(pieces) => put(id, pieces)}
          />
        </div>
      ))}
    </div>
  );
}
