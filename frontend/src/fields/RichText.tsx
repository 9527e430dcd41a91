/** HTML that the server has sanitised, on writing and on reading; nothing else may be shown with this. */
export function RichText({ html }: { html: string }) {
  return <div className="cx-rich" dangerouslySetInnerHTML={{ __html: html }} />;
}
