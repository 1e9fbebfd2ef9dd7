/**
 * The program's clock, as far as this device can tell: what people write on two phones is put in order by it. Answers
 * carry the time to the second; less than two seconds apart counts as the same.
 */
let apart = 0;

export function heardTime(date: string | null): void {
  const time = date === null ? NaN : Date.parse(date);
  if (Number.isNaN(time)) return;
  const by = time + 500 - Date.now();
  apart = Math.abs(by) < 2000 ? 0 : by;
}

export const now = (): number => Date.now() + apart;
