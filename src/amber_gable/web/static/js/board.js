// From the screen to metres on a drawn face, and back.
export function boardOf(svg) {
  const { scale, left, ground, width, top } = svg.dataset;
  return { svg, scale: +scale, left: +left, ground: +ground, width: +width, top: +top };
}

export function metres(board, event) {
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(board.svg.getScreenCTM().inverse());
  return { x: (at.x - board.left) / board.scale, y: (board.ground - at.y) / board.scale };
}

export const px = (board, x, y) => ({ x: board.left + x * board.scale, y: board.ground - y * board.scale });

// Screen pixels for one pixel of the drawing: a drawing squeezed on to a phone is below 1.
export const zoom = (board) => board.svg.getScreenCTM().a;

export function shape(name, attributes) {
  const made = document.createElementNS("http://www.w3.org/2000/svg", name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  return made;
}
