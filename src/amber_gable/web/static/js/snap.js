// Where a box being moved or drawn wants to rest: edges and middles of what is there, equal gaps, else the grid. Metres.

// Lines of the other boxes along one axis: [position, what]. `at` and `size` name the axis.
function lines(others, at, size, end) {
  const out = [[0, "edge"], [end, "edge"], [end / 2, "middle"]];
  for (const o of others) out.push([o[at], "edge"], [o[at] + o[size], "edge"], [o[at] + o[size] / 2, "middle"]);
  return out;
}

// Places at which the gaps to the neighbours on a level come out equal.
function equalGaps(box, others, end) {
  const level = others.filter((o) => o.y < box.y + box.h && box.y < o.y + o.h).sort((a, b) => a.x - b.x);
  const middle = box.x + box.w / 2;
  const before = level.filter((o) => o.x + o.w / 2 <= middle), after = level.filter((o) => o.x + o.w / 2 > middle);
  const left = before.at(-1), right = after[0];
  const out = [];
  const from = left ? left.x + left.w : 0, to = right ? right.x : end;
  out.push((from + to - box.w) / 2);
  if (before.length > 1) out.push(left.x + left.w + (left.x - before.at(-2).x - before.at(-2).w));
  if (after.length > 1) out.push(right.x - (after[1].x - right.x - right.w) - box.w);
  return out;
}

function nearest(candidates, reach) {
  let best = null;
  for (const c of candidates) if (Math.abs(c.by) <= reach && (!best || Math.abs(c.by) < Math.abs(best.by))) best = c;
  return best;
}

const toGrid = (value, step) => Math.round(value / step) * step;

// A moved box: both its edges and its middle may rest on a line.
export function snapMove(box, others, face, reach, step) {
  const along = [];
  for (const [line] of lines(others, "x", "w", face.width)) {
    for (const own of [0, box.w / 2, box.w]) along.push({ by: line - box.x - own, line });
  }
  for (const x of equalGaps(box, others, face.width)) along.push({ by: x - box.x, equal: true });
  const up = [];
  for (const [line, what] of lines(others, "y", "h", face.top)) {
    if (what === "edge") for (const own of [0, box.h]) up.push({ by: line - box.y - own, line });
  }
  const x = nearest(along, reach), y = nearest(up, reach);
  return {
    x: x ? box.x + x.by : toGrid(box.x, step), y: y ? box.y + y.by : toGrid(box.y, step),
    guideX: x?.line, guideY: y?.line, equal: x?.equal === true,
  };
}

// A dragged corner: one edge each way may rest on a line.
export function snapCorner(point, others, face, reach, step) {
  const x = nearest(lines(others, "x", "w", face.width).map(([line]) => ({ by: line - point.x, line })), reach);
  const y = nearest(lines(others, "y", "h", face.top).filter((l) => l[1] === "edge").map(([line]) => ({ by: line - point.y, line })), reach);
  return { x: x ? x.line : toGrid(point.x, step), y: y ? y.line : toGrid(point.y, step), guideX: x?.line, guideY: y?.line };
}
