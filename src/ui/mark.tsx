/** The kettle of Kettle Drop. */
export function Mark() {
  return (
    <svg
      width="26"
      height="26"
      viewBox="0 0 26 26"
      fill="none"
      stroke="currentColor"
      strokeWidth="2.2"
      strokeLinejoin="round"
      strokeLinecap="round"
      aria-hidden="true"
    >
      <path d="M6 12h13l1.500 10H4.500z" />
      <path d="M9 12c0-3 1.500-5 3.500-5s3.500 2 3.500 5M6.500 12 2.500 8.500M9.500 5.500C9.500 3 15.500 3 15.500 5.500" />
    </svg>
  );
}
