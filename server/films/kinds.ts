/** A film is made for the web: in sizes and containers, as its recipe says. In a lane of its own: a long one holds up no picture. */
export const MAKE_FILM = 'film';
