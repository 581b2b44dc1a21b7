/** Two posts in a flat at half tide. */
export function Logo() {
  return (
    <svg width="36" height="24" viewBox="0 0 36 24" aria-hidden="true">
      <path d="M7 5V20M17 2V20M28 7V20" stroke="var(--post)" strokeWidth="4" strokeLinecap="round" fill="none" />
      <path
        d="M1 16C5 12 9 12 13 16S21 20 25 16S32 13 35 15"
        stroke="var(--estuary)"
        strokeWidth="3"
        strokeLinecap="round"
        fill="none"
      />
    </svg>
  );
}
