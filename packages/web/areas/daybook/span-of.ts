import dayjs from 'dayjs';

/** Days as the calendar on the wall has them, as instants: from the first midnight of the one up to the last of the other. */
export const spanOf = (
  from: string | undefined,
  to: string | undefined,
): { from: string | undefined; to: string | undefined } => ({
  from: instantOf(from, 0),
  to: instantOf(to, 1),
});

/** What is no day stays as it is: the server says what is wrong with it. */
function instantOf(day: string | undefined, later: number): string | undefined {
  const time = day ? dayjs(day).startOf('day').add(later, 'day') : null;
  return time?.isValid() ? time.toISOString() : day;
}
