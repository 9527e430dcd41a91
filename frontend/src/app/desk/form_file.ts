// A form's document as a file, which can be read in again.

export function saveFormFile(name: string, document_: unknown): void {
  const address = URL.createObjectURL(new Blob([JSON.stringify(document_, null, 2)], { type: "application/json" }));
  const link = document.createElement("a");
  link.href = address;
  link.download = `${name.replaceAll(/[^\p{L}\p{N}]+/gu, "-").replaceAll(/^-|-$/g, "") || "form"}.json`;
  link.click();
  URL.revokeObjectURL(address);
}
