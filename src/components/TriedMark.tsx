/** A small sign that something is tried over what stands beside it; `words` say what. */
export const TriedMark = ({
  words,
  className,
}: {
  readonly words: string;
  readonly className?: string | undefined;
}) => (
  <span
    className={className}
    style={{ fontSize: 11, color: 'var(--plan)' }}
    title={words}
    role="img"
    aria-label={words}
  >
    ±
  </span>
);
