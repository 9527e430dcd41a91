// What is entered, and what may be said of it: facts, errors and addresses, outside rows and in them.
import type { BlockState, ErrorFace, FormFace, FormState, RowState, ShapedRowKindFace } from "../api/generated/wire";
import { type Answer, type RowAnswer, rowsIn, shownKinds, type Surroundings } from "../fields/input";
import { blocksWithin, labelOf } from "./facts";
import type { Snapshot } from "./snapshot";

type Pages = FormFace["pages"];

export interface Wrong {
  address: string;
  label: string;
  message: string;
}

interface Host {
  read: () => Snapshot;
  change: (block: string, answer: Answer) => void;
  /** The visitor changes what stands inside a row. */
  touch: (address: string) => void;
  leave: (address: string) => void;
  checkOf: (block: string) => (() => void) | null;
}

export class Entered {
  private readonly fresh: NonNullable<FormState["fresh"]>;

  constructor(
    private readonly face: FormFace,
    start: FormState,
    private readonly host: Host,
  ) {
    this.fresh = start.fresh ?? {};
  }

  /** Where the blocks of the form stand, or with a row those inside it. */
  surroundings(repeat?: string, row?: string): Surroundings {
    return repeat === undefined || row === undefined ? this.outside() : this.inside(repeat, row);
  }

  private outside(): Surroundings {
    const { host } = this;
    return {
      prefix: "",
      factsOf: (block) => host.read().state.blocks[block],
      answerOf: (block) => host.read().answers[block] ?? null,
      errorOf: (block) => this.errorOf(block)?.message ?? null,
      change: host.change,
      leave: host.leave,
      checkOf: host.checkOf,
      row: (repeat, row) => this.surroundings(repeat, row),
      rowErrorOf: (repeat, row) => {
        const error = host.read().state.blocks[repeat]?.rows?.[row]?.error;
        return error && host.read().visited.has(repeat) ? error.message : null;
      },
    };
  }

  private inside(repeat: string, row: string): Surroundings {
    const prefix = `${repeat}/${row}/`;
    const state = (): RowState | undefined => this.host.read().state.blocks[repeat]?.rows?.[row];
    return {
      ...this.outside(),
      prefix,
      factsOf: (block) => this.factsInRow(state(), repeat, row, block),
      answerOf: (block) => this.row(repeat, row)?.values[block] ?? null,
      errorOf: (block) => this.errorOf(prefix + block)?.message ?? null,
      change: (block, answer) => this.changeInRow(repeat, row, block, answer),
      leave: (block) => this.host.leave(prefix + block),
      checkOf: () => null,
    };
  }

  private changeInRow(repeat: string, row: string, block: string, answer: Answer): void {
    this.host.touch(`${repeat}/${row}/${block}`);
    const changed = this.rows(repeat).map((each) =>
      each.id === row ? { ...each, values: { ...each.values, [block]: answer } } : each,
    );
    this.host.change(repeat, changed);
  }

  /** What is true of a block in a row; of a new row what is true of any new one, until the server has seen it. */
  private factsInRow(state: RowState | undefined, repeat: string, row: string, block: string): BlockState | undefined {
    return state ? state.blocks[block] : this.fresh[this.row(repeat, row)?.kind ?? ""]?.[block];
  }

  private row(repeat: string, row: string): RowAnswer | undefined {
    return this.rows(repeat).find((each) => each.id === row);
  }

  private rows(repeat: string): readonly RowAnswer[] {
    return rowsIn(this.host.read().answers[repeat] ?? null);
  }

  private at(address: string): { facts: BlockState | undefined; answer: Answer } {
    const [repeat = "", row, block] = address.split("/");
    const { answers, state } = this.host.read();
    if (!row || !block) return { facts: state.blocks[address], answer: answers[address] ?? null };
    return {
      facts: this.factsInRow(state.blocks[repeat]?.rows?.[row], repeat, row, block),
      answer: this.row(repeat, row)?.values[block] ?? null,
    };
  }

  /** What is wrong at an address, if it may be said by now. */
  errorOf(address: string): ErrorFace | null {
    return this.host.read().visited.has(address) ? this.wrongAt(address) : null;
  }

  private wrongAt(address: string): ErrorFace | null {
    const { facts, answer } = this.at(address);
    if (!facts?.shown) return null;
    if (facts.error && facts.error.code !== "required") return facts.error;
    // Whether something was entered, the browser sees by itself, before the server says so.
    if (!facts.required && !facts.error) return null;
    const dropped = facts.dropped ?? false;
    return answer === null || dropped
      ? { code: "required", message: facts.error?.message ?? this.face.wording.required }
      : null;
  }

  /** Everything that is wrong on these pages, in order. */
  wrongOn(pages: Pages): Wrong[] {
    return this.addressesOn(pages).flatMap(({ address, label }) => {
      const error = this.wrongAt(address) ?? this.rowWrong(address);
      return error ? [{ address, label, message: error.message }] : [];
    });
  }

  private rowWrong(address: string): ErrorFace | null {
    const [repeat = "", row, block] = address.split("/");
    return row && !block ? (this.host.read().state.blocks[repeat]?.rows?.[row]?.error ?? null) : null;
  }

  addressesOn(pages: Pages): { address: string; label: string }[] {
    const { state } = this.host.read();
    return blocksWithin(pages.flatMap((page) => page.blocks)).flatMap((block) => {
      const facts = state.blocks[block.id];
      const own = { address: block.id, label: labelOf(block, facts) };
      if (block.type !== "repeat") return [own];
      const kinds = shownKinds(block, facts);
      return [own, ...this.rows(block.id).flatMap((row, at) => this.addressesInRow(block.id, kinds, row, at))];
    });
  }

  private addressesInRow(repeat: string, kinds: readonly ShapedRowKindFace[], row: RowAnswer, at: number) {
    const kind = kinds.find((each) => each.id === row.kind);
    const { prefix, factsOf } = this.surroundings(repeat, row.id);
    return [
      { address: prefix.slice(0, -1), label: `${kind?.label ?? ""} ${at + 1}` },
      ...blocksWithin(kind?.blocks ?? []).map((block) => {
        const label = labelOf(block, factsOf(block.id));
        return { address: prefix + block.id, label: label && `${at + 1}: ${label}` };
      }),
    ];
  }
}
