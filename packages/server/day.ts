/** Today as an ISO date (UTC). */
export const today = (): string => new Date().toISOString().slice(0, 10);
