/** What the machine heard: a ring; what the coach said: a filled diamond; what the singer said: a square. Told apart by shape. */
export function MachineMark({ x, y, size = 9, strong = true }: { x: number; y: number; size?: number; strong?: boolean }) {
  return (
    <circle
      cx={x}
      cy={y}
      r={size}
      fill="var(--card)"
      fillOpacity={0.7}
      stroke="var(--band)"
      strokeWidth={strong ? 3.5 : 2}
      strokeDasharray={strong ? undefined : '3 3'}
    />
  );
}

/** What the singer said: a square. */
export function SingerMark({ x, y, size = 8 }: { x: number; y: number; size?: number }) {
  return (
    <rect x={x - size} y={y - size} width={2 * size} height={2 * size} rx={2} fill="var(--card)" stroke="var(--coach)" strokeWidth={3} />
  );
}

export function CoachMarkShape({ x, y, size = 10 }: { x: number; y: number; size?: number }) {
  return (
    <path
      d={`M${x} ${y - size}L${x + size} ${y}L${x} ${y + size}L${x - size} ${y}Z`}
      fill="var(--coach)"
      stroke="var(--card)"
      strokeWidth={1.5}
    />
  );
}
