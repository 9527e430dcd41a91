// A signature: strokes in a box of 600 by 200, or a typed name for who can't draw.
import { useRef, useState } from "react";
import type { SignatureFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { type Answer, type InputProps, listOf, partsOf, textOf } from "../input";
import { LengthTold } from "../LengthTold";

const WIDTH = 600;
const HEIGHT = 200;

type Strokes = readonly (readonly number[])[];

const MOST_NAME = 200; // characters; what decides is the core (fields/signature.py)

export default function SignatureBox(props: InputProps<SignatureFace>) {
  const { controlId, answer, describedBy, invalid, required, locked, onChange } = props;
  const parts = partsOf(answer);
  const [typing, setTyping] = useState("typed" in parts);
  const strokes = listOf(parts.strokes ?? null) as unknown as Strokes;
  const otherWay = !locked && (
    <button
      type="button"
      className="cx-clear"
      onClick={() => {
        onChange(null);
        setTyping(!typing);
        // The work goes on in the other box.
        requestAnimationFrame(() => document.getElementById(controlId)?.focus());
      }}
    >
      {say(typing ? "drawInstead" : "typeInstead")}
    </button>
  );
  if (typing)
    return (
      <div className="cx-signature">
        <input
          id={controlId}
          className="cx-input cx-signed"
          aria-label={say("typedName")}
          aria-describedby={describedBy}
          aria-invalid={invalid || undefined}
          aria-required={required || undefined}
          readOnly={locked}
          value={textOf(parts.typed ?? null)}
          onChange={(event) => onChange(event.target.value ? { typed: event.target.value } : null)}
        />
        <LengthTold text={textOf(parts.typed ?? null)} most={MOST_NAME} />
        {otherWay}
      </div>
    );
  return (
    <div
      className="cx-signature"
      id={controlId}
      tabIndex={-1}
      role="group"
      aria-labelledby={`${controlId}-label`}
      aria-describedby={describedBy}
    >
      <Pad strokes={strokes} locked={locked} invalid={invalid} onStrokes={(next) => onChange(answerOf(next))} />
      <span className="cx-signature-tools">
        {strokes.length > 0 && !locked && (
          <button type="button" className="cx-clear" onClick={() => onChange(null)}>
            {say("clear")}
          </button>
        )}
        {otherWay}
      </span>
    </div>
  );
}

const answerOf = (strokes: Strokes): Answer => (strokes.length > 0 ? ({ strokes } as unknown as Answer) : null);

function Pad({
  strokes,
  locked,
  invalid,
  onStrokes,
}: {
  strokes: Strokes;
  locked: boolean;
  invalid: boolean;
  onStrokes: (strokes: Strokes) => void;
}) {
  const pad = useRef<SVGSVGElement>(null);
  const [drawn, setDrawn] = useState<readonly number[] | null>(null);
  const point = (event: React.PointerEvent): [number, number] => {
    const box = pad.current!.getBoundingClientRect();
    const within = (value: number, most: number) => Math.round(Math.min(Math.max(value, 0), most));
    return [
      within(((event.clientX - box.left) / box.width) * WIDTH, WIDTH),
      within(((event.clientY - box.top) / box.height) * HEIGHT, HEIGHT),
    ];
  };
  const path = (stroke: readonly number[]) => `M${stroke.join(" ")}`;
  return (
    <svg
      ref={pad}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="cx-pad"
      role="img"
      aria-label={say("draw")}
      data-invalid={invalid || undefined}
      onPointerDown={(event) => {
        if (locked) return;
        pad.current!.setPointerCapture(event.pointerId);
        setDrawn(point(event));
      }}
      onPointerMove={(event) => drawn && setDrawn([...drawn, ...point(event)])}
      onPointerUp={() => {
        if (drawn && drawn.length > 2) onStrokes([...strokes, drawn]);
        setDrawn(null);
      }}
    >
      <path d="M40 160H560" className="cx-pad-line" />
      {[...strokes, ...(drawn ? [drawn] : [])].map((stroke, at) => (
        <path key={at} d={path(stroke)} />
      ))}
    </svg>
  );
}
