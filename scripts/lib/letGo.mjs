const ignore = () => undefined;

/**
 * A client that goes away in the middle of what it sends, or before it is answered, is no event.
 *
 * Next.js hands a body on by laying another stream's listeners over the request's own: ours is gone from then on, and what nobody listens to
 * ends the process or is told as its failure. So it is put there again as the connection closes, a moment before the request says so.
 */
export function letGo(request, response) {
  request.on('error', ignore);
  response.once('close', () => request.on('error', ignore));
}
