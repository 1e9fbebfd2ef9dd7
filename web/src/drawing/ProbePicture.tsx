import Box from "@mui/material/Box";
import { tone } from "../app/theme";

/** Where the two probes go in the open panel: legs of the bus, the neutral bar, the ground bar. */
export function ProbePicture({ ends }: { ends: readonly [string, string] }) {
  const at: Record<string, [number, number]> = {
    a: [70, 92],
    b: [70, 132],
    c: [70, 172],
    neutral: [160, 108],
    ground: [210, 150],
  };
  const [one, other] = ends;
  const legs = one === "c" || other === "c" ? ["A", "B", "C"] : ["A", "B", "A", "B"];
  const probes = [at[one], at[other]].filter((spot): spot is [number, number] => spot !== undefined);
  if (probes.length < 2) return null;
  return (
    <Box sx={{ my: 1 }}>
      <svg
        viewBox="0 0 250 214"
        width="100%"
        style={{ maxWidth: 300 }}
        role="img"
        aria-label={`One probe on ${one === "neutral" || one === "ground" ? one : `leg ${one.toUpperCase()}`}, the other on ${other === "neutral" || other === "ground" ? other : `leg ${other.toUpperCase()}`}`}
      >
        <path d="M46 46 V22 L70 4 L94 22 V46 Z" fill="#a8201a" />
        <text
          x="70"
          y="38"
          textAnchor="middle"
          fill="#fff"
          fontFamily="Overpass Variable"
          fontWeight="700"
          fontSize="13"
        >
          live
        </text>
        <line x1="40" x2="100" y1="56" y2="56" stroke={tone("ink")} strokeWidth="4" strokeDasharray="7 4" />
        <text x="108" y="60" fill={tone("ink")} fontFamily="Overpass Variable" fontWeight="700" fontSize="13">
          main off
        </text>
        {legs.map((leg, n) => (
          <g key={`${leg} ${n}`}>
            <rect
              x="46"
              y={68 + n * (160 / legs.length / 1.15)}
              width="48"
              height={160 / legs.length / 1.15}
              fill="#20594b"
            />
            <text
              x="70"
              y={68 + (n + 0.6) * (160 / legs.length / 1.15)}
              textAnchor="middle"
              fill="#fff"
              fontFamily="Overpass Variable"
              fontWeight="700"
              fontSize="14"
            >
              {leg}
            </text>
          </g>
        ))}
        {(
          [
            [148, "N", "neutral"],
            [198, "G", "ground"],
          ] as const
        ).map(([x, letter]) => (
          <g key={letter}>
            <rect x={x} y="72" width="24" height="130" fill={tone("card")} stroke={tone("ink")} strokeWidth="2" />
            <text
              x={x + 12}
              y="196"
              textAnchor="middle"
              fill={tone("ink")}
              fontFamily="Overpass Variable"
              fontWeight="700"
              fontSize="14"
            >
              {letter}
            </text>
          </g>
        ))}
        {probes.map(([x, y], n) => (
          <g key={n}>
            <line
              x1={x - 42}
              y1={y + 22}
              x2={x - 10}
              y2={y + 5}
              stroke={tone("ink")}
              strokeWidth="6"
              strokeLinecap="round"
            />
            <circle cx={x} cy={y} r="13" fill="none" stroke="#e9a820" strokeWidth="5" />
          </g>
        ))}
      </svg>
    </Box>
  );
}
