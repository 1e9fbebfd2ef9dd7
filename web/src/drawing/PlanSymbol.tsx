import type { SymbolDrawing } from "../api/client";
import { tone } from "../app/theme";

/** A wiring symbol by its strokes; letters stay upright however it is turned. */
export function PlanSymbol({ drawing, turn }: { drawing: SymbolDrawing; turn: number }) {
  const ink = tone("ink");
  return (
    <g fill="none" stroke={ink} strokeWidth={16} aria-hidden="true">
      {drawing.strokes.map((stroke, n) => {
        switch (stroke.stroke) {
          case "line":
            return (
              <line
                key={n}
                x1={stroke.from.x}
                y1={stroke.from.y}
                x2={stroke.to.x}
                y2={stroke.to.y}
                transform={`rotate(${turn})`}
              />
            );
          case "circle":
            return (
              <circle
                key={n}
                cx={stroke.at.x}
                cy={stroke.at.y}
                r={stroke.radius}
                fill={stroke.filled ? ink : tone("card")}
                transform={`rotate(${turn})`}
              />
            );
          case "letters":
            return (
              <g key={n} transform={`rotate(${turn}) translate(${stroke.at.x} ${stroke.at.y}) rotate(${-turn})`}>
                <text
                  textAnchor="middle"
                  y={stroke.height / 2}
                  fontSize={stroke.height / 0.72}
                  fontFamily="Overpass Variable"
                  fontWeight={700}
                  fill={ink}
                  stroke="none"
                >
                  {stroke.text}
                </text>
              </g>
            );
        }
      })}
    </g>
  );
}
