/** How long before it is sent something was made, in milliseconds: a header of what waited in a browser. */
export const MADE_AGO_HEADER = 'x-made-ago';
/** Who made it, URI-encoded, where that is another of those who are signed in on the device. */
export const MADE_BY_HEADER = 'x-made-by';
/** By which a device proves that it is the one whose copy it holds. */
export const DEVICE_TICKET_HEADER = 'x-device-ticket';
