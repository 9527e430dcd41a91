import { describe, expect, it } from "vitest";
import type { Form } from "../../api/generated/wire";
import { type FollowUp, partsOf } from "../../model/parts";
import { newBlock, newPage } from "../../model/new_block";
import { read, written } from "./clipboard";
import { KINDS } from "./kinds";

function formWith(key: string) {
  const form = { pages: [], figures: [], checks: [], confirmations: [], follow_ups: [], trials: [] } as unknown as Form;
  const mail = { ...newBlock(form, "email"), key };
  const whole = { ...form, pages: [{ ...newPage("One"), blocks: [mail] }] } as Form;
  return { mail: mail.id, parts: partsOf(whole) };
}

const mailTo = (field: string): FollowUp => {
  const made = KINDS.email.made();
  return { ...made, recipients: [{ role: "to", field, person: "", address: "", when: "" }] } as FollowUp;
};

describe("A copied follow-up", () => {
  it("names the field of the same key in another form, and itself has another id", () => {
    const [here, there] = [formWith("email"), formWith("email")];
    const copied = mailTo(here.mail);
    const pasted = read(written(copied, here.parts), there.parts)!;
    expect(pasted).toEqual({ ...mailTo(there.mail), id: pasted.id });
    expect(pasted.id).not.toBe(copied.id);
  });

  it("keeps what the other form has no field for, so that the proof names it", () => {
    const here = formWith("email");
    const pasted = read(written(mailTo(here.mail), here.parts), formWith("post").parts)!;
    expect(pasted).toMatchObject({ recipients: [{ field: here.mail }] });
  });

  it("is nothing else that is pasted", () => {
    for (const text of ["", "Dear all", "null", "[1]", '{"codexa blocks 1":[]}'])
      expect(read(text, formWith("email").parts)).toBeNull();
  });
});
