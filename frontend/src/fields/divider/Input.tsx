export function DividerContent() {
  return <hr className="cx-divider" />;
}
