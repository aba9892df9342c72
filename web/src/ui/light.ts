/** The cookie that says whether this browser shows Sinew dim; read on the server, so nothing flashes. */
export const LIGHT_COOKIE = 'sinew-light';
