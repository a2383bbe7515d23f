import { addHeadingBody, api } from '@osier/contract';
import { HEADING_KINDS, SUBJECT_KINDS } from '@osier/core/headings';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../api/call';
import { refresh } from '../../api/queries';
import { RequestProblem } from '../../api/request';
import { SchemaForm } from '../../parts/form/SchemaForm';
import type { FormField } from '../../parts/form/field-kinds';
import { useShell } from '../../shell/shell-store';
import { kindName } from './heading-names';
import { headingsWords as wording } from './words';

/** Codes of vocabularies that are offered (MARC list Subject Heading and Term Source Codes). */
const VOCABULARIES = ['lcsh', 'lcshac', 'mesh', 'fast', 'aat', 'lcgft', 'sears'];
const isSubject = (kind: unknown) => SUBJECT_KINDS.some((k) => k === kind);

/** A heading that no record carries yet: its form, other forms, and where it was found. */
export function AddHeading({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const { say } = useShell();
  const [isAlike, setAlike] = useState(false);
  const fields = (typed: Readonly<Record<string, unknown>>): readonly FormField[] => [
    {
      name: 'kind',
      label: wording.kind,
      kind: 'choice',
      options: HEADING_KINDS.map((value) => ({ value, label: kindName(value) })),
    },
    ...(isSubject(typed.kind)
      ? [
          {
            name: 'vocabulary',
            label: wording.vocabulary,
            kind: 'offered' as const,
            offers: VOCABULARIES,
            help: wording.vocabularyHelp,
          },
        ]
      : []),
    { name: 'form', label: wording.formOfHeading, width: 'wide', isMono: true, help: wording.formHelp },
    {
      name: 'seeFroms',
      label: wording.seeFromForms,
      width: 'wide',
      kind: 'tags',
      help: wording.seeFromsHelp,
    },
    { name: 'source', label: wording.source, width: 'wide', help: wording.sourceHelp },
    ...(isAlike
      ? [{ name: 'withErrors', label: wording.addAllTheSame, kind: 'flag' as const, width: 'wide' as const }]
      : []),
  ];
  return (
    <SchemaForm
      takesFocus
      title={wording.aNewHeading}
      schema={addHeadingBody}
      initial={{ kind: 'personal', vocabulary: 'lcsh' }}
      draft={{ key: 'new heading', title: wording.aNewHeading, path: '/headings?show=all&add=1' }}
      fields={fields}
      // What was said of one form does not hold for another.
      follow={(changed) => ('form' in changed ? { withErrors: false } : {})}
      verb={wording.addHeading}
      onCancel={onClose}
      onSend={async (body) => {
        try {
          const done = await call(api.headings.add, { body });
          say(done.sentence, done.entry);
          await refresh();
          void navigate(`/headings/${done.id}?show=all`);
        } catch (e) {
          if (e instanceof RequestProblem && e.problem.fields?.some((f) => f.field === 'withErrors'))
            setAlike(true);
          throw e;
        }
      }}
    />
  );
}
