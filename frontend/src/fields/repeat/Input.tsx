// Rows of one or several kinds: added anywhere, moved, removed, kept in the visitor's order.
import { useRef, useState } from "react";
import type { RepeatFace, ShapedRowKindFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import {
  type InputProps,
  type RowAnswer,
  rowsIn,
  SurroundingsContext,
  shownKinds,
  useBlocks,
  useSurroundings,
} from "../input";

const newRowId = (): string => crypto.randomUUID().replaceAll("-", "").slice(0, 16);

export function RepeatInput(props: InputProps<RepeatFace>) {
  const { block, controlId, answer, facts, describedBy, locked, onChange } = props;
  const around = useSurroundings();
  const Blocks = useBlocks();
  const [said, setSaid] = useState("");
  // The filled row that was removed last, until something else is done with the rows.
  const [removed, setRemoved] = useState<{ row: RowAnswer; at: number } | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const rows = rowsIn(answer);
  const kinds = shownKinds(block, facts);
  const kindOf = (row: RowAnswer) => kinds.find((kind) => kind.id === row.kind);
  const keep = (next: readonly RowAnswer[], news: string) => {
    onChange(next.length > 0 ? next : null);
    setSaid(news);
    setRemoved(null);
  };
  const focusRow = (at: number) =>
    requestAnimationFrame(() => list.current?.querySelectorAll<HTMLElement>(".cx-row")[at]?.focus());
  const offered = kinds.filter((kind) => {
    const state = facts.kinds?.[kind.id];
    const count = rows.filter((row) => row.kind === kind.id).length;
    return state?.shown !== false && !state?.locked && (kind.max_rows === null || count < kind.max_rows);
  });
  const full = rows.length >= block.max_rows;
  const insert = (kind: ShapedRowKindFace, at: number) => {
    const row = { kind: kind.id, id: newRowId(), values: {} };
    keep([...rows.slice(0, at), row, ...rows.slice(at)], say("rowAdded", { label: kind.label }));
    focusRow(at);
  };
  const move = (at: number, by: -1 | 1) => {
    const next = [...rows];
    [next[at], next[at + by]] = [next[at + by]!, next[at]!];
    keep(next, say("rowMoved", { label: kindOf(rows[at]!)?.label ?? "", place: at + by + 1 }));
    focusRow(at + by);
  };
  const remove = (at: number) => {
    keep(
      rows.filter((_row, index) => index !== at),
      say("rowRemoved", { label: kindOf(rows[at]!)?.label ?? "" }),
    );
    if (Object.keys(rows[at]!.values).length > 0) setRemoved({ row: rows[at]!, at });
    requestAnimationFrame(() => document.getElementById(controlId)?.focus());
  };
  const putBack = () => {
    if (!removed) return;
    const { row, at } = removed;
    keep([...rows.slice(0, at), row, ...rows.slice(at)], say("rowAdded", { label: kindOf(row)?.label ?? "" }));
    focusRow(at);
  };
  const back = removed && !full && offered.find((kind) => kind.id === removed.row.kind);
  return (
    <div
      id={controlId}
      className="cx-repeat"
      role="group"
      tabIndex={-1}
      aria-labelledby={`${controlId}-label`}
      aria-describedby={describedBy}
    >
      <div ref={list} role="list" className="cx-rows">
        {rows.map((row, at) => {
          const kind = kindOf(row);
          if (!kind || facts.kinds?.[kind.id]?.shown === false) return null;
          const frozen = locked || (facts.kinds?.[kind.id]?.locked ?? false);
          return (
            <div
              key={row.id}
              className="cx-row"
              role="listitem"
              tabIndex={-1}
              data-one-line={kind.one_line || undefined}
              data-headed={(kind.one_line && kindOf(rows[at - 1] ?? row) !== kind) || at === 0 || undefined}
              aria-label={`${at + 1}: ${kind.label}`}
            >
              <div className="cx-row-head">
                <span className="cx-row-number">{at + 1}</span>
                <span className="cx-row-kind">{kind.label}</span>
                {!frozen && (
                  <span className="cx-row-tools">
                    {!full && (
                      <span className="cx-row-inserts">
                        {offered.map((each) => (
                          <button
                            key={each.id}
                            type="button"
                            className="cx-row-insert"
                            aria-label={say("insertBefore", { label: each.label })}
                            title={say("insertBefore", { label: each.label })}
                            onClick={() => insert(each, at)}
                          >
                            + {offered.length > 1 ? each.label : ""}
                          </button>
                        ))}
                      </span>
                    )}
                    <RowButton label={say("moveUp")} sign="↑" off={at === 0} onPress={() => move(at, -1)} />
                    <RowButton
                      label={say("moveDown")}
                      sign="↓"
                      off={at === rows.length - 1}
                      onPress={() => move(at, 1)}
                    />
                    <RowButton label={say("removeRow", { label: kind.label })} sign="×" onPress={() => remove(at)} />
                  </span>
                )}
              </div>
              <SurroundingsContext value={around.row(block.id, row.id)}>
                <Blocks blocks={kind.blocks} />
              </SurroundingsContext>
              {around.rowErrorOf(block.id, row.id) && <p className="cx-error">{around.rowErrorOf(block.id, row.id)}</p>}
            </div>
          );
        })}
      </div>
      {!locked && !full && (
        <div className="cx-adders">
          {offered.map((kind) => (
            <button key={kind.id} type="button" className="cx-add" onClick={() => insert(kind, rows.length)}>
              {kind.add_label || say("add", { label: kind.label })}
            </button>
          ))}
        </div>
      )}
      {back && !locked && (
        <p className="cx-put-back">
          {say("rowRemoved", { label: back.label })}{" "}
          <button type="button" className="cx-add" onClick={putBack}>
            {say("putBack", { label: back.label })}
          </button>
        </p>
      )}
      <p className="cx-unseen" role="status">
        {said}
      </p>
    </div>
  );
}

function RowButton({ label, sign, off, onPress }: { label: string; sign: string; off?: boolean; onPress: () => void }) {
  return (
    <button type="button" aria-label={label} title={label} disabled={off} onClick={onPress}>
      {sign}
    </button>
  );
}
