/** What a mail says. */
export interface MailWords {
  readonly subject: string;
  readonly text: string;
}

/** What each mail of the shop says. Titles and names are those that people typed; mails are plain text. */
export const mailWords = {
  cameIn: (title: string, link: string): MailWords => ({
    subject: `We have your drawing “${title}”`,
    text: [
      'The workshop looks at it before anything is burnt.',
      `Follow it here, write to the workshop, or withdraw it:\n${link}`,
      'Keep this link to yourself: it is the only way there. If you did not send a drawing, open it and withdraw it.',
    ].join('\n\n'),
  }),
  newSending: (title: string, name: string): MailWords => ({
    subject: `Came in: ${title}`,
    text: `${name} has sent in “${title}”. It is on the Desk.`,
  }),
  fromWorkshop: (title: string, text: string): MailWords => ({
    subject: `A message about “${title}”`,
    text: `The workshop writes:\n\n${text}\n\nAnswer on the page whose link you have from the first mail.`,
  }),
  fromSender: (title: string, name: string, text: string): MailWords => ({
    subject: `A message about “${title}”`,
    text: `${name || 'The sender'} writes:\n\n${text}\n\nAnswer on the Desk.`,
  }),
  newFile: (title: string, name: string, file: string): MailWords => ({
    subject: `A new file for “${title}”`,
    text: `${name || 'The sender'} wants ${file} made instead. What changed is shown on the Desk, where you take it or leave it out.`,
  }),
  fileTaken: (title: string, file: string): MailWords => ({
    subject: `Your new file for “${title}”`,
    text: `The workshop took ${file}: it is made now, instead of the one before.`,
  }),
  fileLeftOut: (title: string, file: string): MailWords => ({
    subject: `Your new file for “${title}”`,
    text: `The workshop left ${file} out: the drawing before is made.`,
  }),
  quoted: (title: string, number: number, price: string, validUntil: string): MailWords => ({
    subject: `Quote ${number} for “${title}”`,
    text: `The workshop makes it for ${price}, if you say yes until ${validUntil}. Say it on the page whose link you have from the first mail.`,
  }),
  accepted: (title: string, number: number): MailWords => ({
    subject: `Yes to quote ${number}: ${title}`,
    text: `The sender of “${title}” said yes to quote ${number}. It is ready to be burnt.`,
  }),
  burnt: (title: string): MailWords => ({
    subject: `“${title}” can be fetched`,
    text: `“${title}” is burnt. It waits for you at the workshop.`,
  }),
} as const;
