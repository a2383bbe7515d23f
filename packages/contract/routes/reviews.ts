import { array, object } from 'yup';
import { id } from '../inputs';
import { number } from '../values';

/** Reviews show a page of rows at once, from this row on. */
export const page = { from: number().integer().min(0).max(1_000_000).default(0) };
/** Which page of a review. */
export const pageBody = object(page);
/** Objects of a review that stay as they are. */
export const leaveOut = () => array(id().required()).max(20000).default([]);
