import { CHAIN, type Link } from '@sinew/core/foundation/technique/techniques';
import { SelectField } from '@/ui/field';

/** A link of the chain to choose. */
export function LinkField({
  label,
  link,
  onLink,
}: {
  label: string;
  link: Link;
  onLink: (link: Link) => void;
}) {
  return (
    <SelectField
      label={label}
      value={link}
      onChange={(event) => onLink(event.target.value as Link)}
    >
      {CHAIN.map((one) => (
        <option key={one} value={one}>
          {one[0]!.toUpperCase() + one.slice(1)}
        </option>
      ))}
    </SelectField>
  );
}
