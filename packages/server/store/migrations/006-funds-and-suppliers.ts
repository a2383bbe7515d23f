/** What copies and sheets say of a fund or supplier, as a list to begin with: the text is code and name at once. */
const inUse = (part: 'fund' | 'supplier') =>
  `(SELECT json_group_array(json_object('code', said, 'name', said)) FROM (SELECT said FROM (
     SELECT json_extract(value, '$.${part}') AS said FROM copies UNION
     SELECT json_extract(value, '$.defaults.${part}') FROM sheets) WHERE said <> '' ORDER BY said))`;

/** Funds and suppliers become code lists (settings 2 are the lists). */
export const fundsAndSuppliers = [
  `UPDATE settings SET value = json_set(value, '$.funds', json(${inUse('fund')}), '$.suppliers', json(${inUse('supplier')})) WHERE id = 2`,
];
