/** What an arrow key carries by: to the right, away. */
export const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-0.1, 0],
  ArrowRight: [0.1, 0],
  ArrowUp: [0, 0.1],
  ArrowDown: [0, -0.1],
}

/** Things are set down to the tenth of a metre. */
export const tenth = (metres: number) => Math.round(metres * 10) / 10
