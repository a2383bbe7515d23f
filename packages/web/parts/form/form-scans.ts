import type { FormInstance } from 'antd';
import { useCallback, useEffect, useRef } from 'react';
import { useTakesScans } from '../../shell/scan-target';

type Values = Record<string, unknown>;

/** What scans do in a form, from wherever the focus is. */
export interface FormScans {
  /** What takes the scans, as the status line names it. */
  readonly name: string;
  /** The fields that a code fills in. */
  readonly fill: (code: string) => Values;
  /** The field that is filled in next, given what is there by now; null when the form is to be sent. */
  readonly next: (typed: Values) => string | null;
}

const NOTHING: FormScans = { name: '', fill: () => ({}), next: () => null };

/** While the form is open, scans fill it in: the focus goes to what is lacking, and the last scan sends it. */
export function useFormScans(
  form: FormInstance<Values>,
  scans: FormScans | undefined,
  onChange: (changed: Values) => void,
): void {
  const latest = useRef({ scans: scans ?? NOTHING, onChange });
  useEffect(() => {
    latest.current = { scans: scans ?? NOTHING, onChange };
  });
  const take = useCallback(
    (code: string) => {
      const { scans: by, onChange: tell } = latest.current;
      const filled = by.fill(code);
      form.setFieldsValue(filled);
      tell(filled);
      const next = by.next(form.getFieldsValue());
      if (next === null) form.submit();
      else form.focusField(next);
    },
    [form],
  );
  useTakesScans(scans?.name ?? '', scans ? take : null);
}
