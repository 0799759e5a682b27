/** Our mark: a ribbon of dough folded twice, with the butter in it. */
export function Mark({ className }: { className?: string }) {
  const fold = "M24 25H9a4.5 4.5 0 0 1 0-9h14a4.5 4.5 0 0 0 0-9H8";
  return (
    <svg viewBox="0 0 32 32" className={className} role="img" aria-label="Eight Turn">
      <path d={fold} fill="none" stroke="var(--crust)" strokeWidth="6" />
      <path d={fold} fill="none" stroke="var(--butter)" strokeWidth="1.8" />
    </svg>
  );
}
