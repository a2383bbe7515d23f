import { array, object } from 'yup';
import { id } from '../inputs';
import { number, string } from '../values';

/** Reviews show a page of rows at once, from this row on. */
export const page = { from: number().integer().min(0).max(1_000_000).default(0) };
/** Which page of a review. */
export const pageBody = object(page);
/** The token of the review that is acted on; nothing is done when the review would show something else by now. */
export const reviewed = () => string().max(100).optional();
/** Objects of a review that stay as they are. */
export const leaveOut = () => array(id().required()).max(20000).default([]);
