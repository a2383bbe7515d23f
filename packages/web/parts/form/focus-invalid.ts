import { useEffect, type RefObject } from 'react';

/** When something was refused, the focus goes to the first control of the form that it concerns. */
export function useFocusInvalid(form: RefObject<HTMLElement | null>, refusal: unknown): void {
  useEffect(() => {
    if (refusal) form.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [form, refusal]);
}
