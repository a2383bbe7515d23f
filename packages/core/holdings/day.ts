/** Whether a text is a day of the calendar as ISO 8601 writes it: 2026-11-28. */
export const isDay = (text: string): boolean => {
  if (!/^\d{4}-\d\d-\d\d$/.test(text)) return false;
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
};
