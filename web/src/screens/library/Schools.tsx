'use client';

import { SCHOOLS, type School } from '@sinew/core/judge/school/schools';

/** Where practitioners disagree: what is chosen here, and what changes with it. */
export function Schools({
  chosen,
  wait,
  onChoose,
}: {
  chosen: School;
  /** What holds where nothing is chosen: what is usual, or what the gym has. */
  wait: 'usual' | 'gym';
  onChoose: (key: string, choice: string | null) => void;
}) {
  return (
    <ul>
      {Object.entries(SCHOOLS).map(([key, { name, choices, usual, changes }]) => (
        <li
          key={key}
          className="grid md:grid-cols-[17rem_1fr] items-center gap-x-6 gap-y-2 border-b border-rule py-2.5"
        >
          <label htmlFor={`school-${key}`} className="font-semibold">
            {name}
          </label>
          <div className="flex items-center gap-6">
            <select
              id={`school-${key}`}
              value={chosen[key] ?? ''}
              onChange={(event) => onChoose(key, event.target.value || null)}
              className="h-10 w-72 border border-soft bg-field px-3"
            >
              <option value="">
                {wait === 'gym'
                  ? 'as the gym has it'
                  : `${choices.find(({ id }) => id === usual)!.name} (usual)`}
              </option>
              {choices
                .filter(({ id }) => wait === 'gym' || id !== usual)
                .map((choice) => (
                  <option key={choice.id} value={choice.id}>
                    {choice.name}
                  </option>
                ))}
            </select>
            <span className="text-sm text-soft">{changes}</span>
          </div>
        </li>
      ))}
    </ul>
  );
}
