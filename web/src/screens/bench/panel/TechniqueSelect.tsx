import { TECHNIQUES } from '@sinew/core/foundation/technique/techniques';

/** "It is a …": which technique a found strike is. */
export function TechniqueSelect({
  value,
  onChoose,
}: {
  value: string;
  onChoose: (technique: string) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="text-soft">It is a</span>
      <select
        value={value}
        onChange={(event) => {
          onChoose(event.target.value);
          event.target.blur();
        }}
        className="h-9 border border-soft bg-field px-2"
      >
        {TECHNIQUES.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
