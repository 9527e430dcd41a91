// The mark of Codexa: lines on a leaf and a note in its margin.
export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden="true">
      <rect width="32" height="32" rx="7" fill="#fff" />
      <path d="M8 8h10v3H8zM8 14.500h10v3H8zM8 21h10v3H8z" fill="#16202B" />
      <path d="M21 8h3v9.500h-3z" fill="#C8401F" />
    </svg>
  );
}
