/** A code for cameras, with the blank border that they need. */
export function Code({ code, side, label }: { code: { size: number; d: string }; side: number; label: string }) {
  const { size, d } = code;
  return (
    <svg
      width={side}
      height={side}
      viewBox={`-4 -4 ${size + 8} ${size + 8}`}
      role="img"
      aria-label={label}
      shapeRendering="crispEdges"
      style={{ flex: "none" }}
    >
      <rect x="-4" y="-4" width={size + 8} height={size + 8} fill="#fff" />
      <path d={d} fill="#000" />
    </svg>
  );
}
