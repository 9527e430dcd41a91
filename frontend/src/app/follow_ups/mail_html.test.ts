import { expect, it } from "vitest";
import { forFrame } from "./mail_html";

it("a mail's styles become classes of one element with the page's nonce, and its text stays as it is", () => {
  const mail =
    '<html><head><title>x</title><style>@media{}</style></head><body class="ground" style="margin:0"><p style="color:#123">a &quot;b&quot;</p></body></html>';
  expect(forFrame(mail, "n1")).toBe(
    '<html><head><title>x</title><style nonce="n1">.m0{margin:0}.m1{color:#123}</style></head>' +
      '<body class="ground m0"><p class="m1">a &quot;b&quot;</p></body></html>',
  );
});
