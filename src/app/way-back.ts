/** The address that a site sends the browser back to after sign-in: on the host that the browser itself used. */
export function wayBack(request: Request, site: string): string {
  return `http://${request.headers.get('host')}/api/connect/${encodeURIComponent(site)}/back`;
}
