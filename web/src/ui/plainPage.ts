/** A page without script and without the app around it, for when there is no app, or nobody is in it. */

export const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);

/**
 * @param title said in the browser's tab, and as heading
 * @param main what stands below it, as HTML
 */
export const plainPage = (title: string, main: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)} · Sinew</title>
<link rel="stylesheet" href="/plain.css">
</head>
<body>
<header><strong>Sinew</strong></header>
<main>
<h1>${escaped(title)}</h1>
${main}
</main>
</body>
</html>
`;

/** What was tried and did not work, said out loud. */
export const answerLine = (message: string | null): string =>
  message ? `<p role="alert" class="answer">${escaped(message)}</p>` : '';
