import { GLOSSARY } from '@sinew/core/analysis/glossary';

/** What Sinew's words mean. */
export function Words() {
  return (
    <div className="grid gap-x-12 gap-y-8 lg:grid-cols-2">
      {GLOSSARY.map(({ name, terms }) => (
        <section key={name} aria-label={name}>
          <h2 className="border-b-2 border-ink pb-1 text-base font-semibold">{name}</h2>
          <dl>
            {terms.map(({ term, meaning }) => (
              <div
                key={term}
                className="grid gap-x-4 border-b border-rule py-2 sm:grid-cols-[12rem_1fr]"
              >
                <dt className="font-semibold">{term}</dt>
                <dd>{meaning}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </div>
  );
}
