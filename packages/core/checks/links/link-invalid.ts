import { dropSubfield, look, safe, setText, type Check } from '../finding';
import { inSubfield, subfieldsOf } from '../view';

const LINK =
  /^(?:https?|ftp):\/\/[^\s/?#]+\.[^\s]+$|^(?:https?):\/\/localhost[^\s]*$|^(?:urn|doi|hdl|info|mailto):\S+$/i;

export const linkForm: Check = {
  rule: 'link-invalid',
  title: 'Invalid link',
  group: 'Links',
  source: 'MARC 21, 856 $u; RFC 3986',
  needs: ['856'],
  each: true,
  run(view, tell) {
    for (const p of view.tagged('856'))
      for (const { value, i } of subfieldsOf(p, 'u')) {
        if (LINK.test(value)) continue;
        const corrected = mendedLink(value);
        tell({
          severity: 'warning',
          where: inSubfield(p, i),
          message: `“${value}” is not a link that can be opened (https://…).`,
          fix:
            corrected !== value && LINK.test(corrected)
              ? value.trim() === corrected
                ? safe('Delete the spaces', setText(p, i, corrected))
                : look(`Write ${corrected}`, setText(p, i, corrected))
              : look('Delete link', dropSubfield(p, i)),
        });
      }
  },
};

const mendedLink = (text: string): string =>
  text
    .trim()
    .replace(/^h?t{1,3}ps?:?\/{1,3}(?=[^/])/i, (start) => (/s:?\/+$/i.test(start) ? 'https://' : 'http://'))
    .replace(/^www\./i, 'https://www.')
    .replace(/^(https?:\/\/)(?:https?:\/\/)+/i, '$1')
    .replace(/ /g, '%20');
