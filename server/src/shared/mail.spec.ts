import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import { Mailer } from './mail.js';

describe('mails', () => {
  it('are handed to the mail server that is set, from whom and to whom', async () => {
    const taken: { from: string; to: string[]; text: string }[] = [];
    const server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onData(stream, session, done) {
        let text = '';
        stream.on('data', (part: Buffer) => (text += part.toString('utf8')));
        stream.on('end', () => {
          const { mailFrom, rcptTo } = session.envelope;
          taken.push({ from: mailFrom ? mailFrom.address : '', to: rcptTo.map(({ address }) => address), text });
          done();
        });
      },
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.server.address() as AddressInfo;
    const mailer = (at: number) =>
      new Mailer({ url: `smtp://127.0.0.1:${at}`, from: 'Dial Gauge <gauge@clinic.example>', publicUrl: 'https://gauge.example' });
    try {
      await mailer(port).send({ to: 'rook@clinic.example', subject: 'Ä link', text: 'https://gauge.example/join#abc' });
      expect(taken.length).toBe(1);
      expect([taken[0]!.from, taken[0]!.to]).toEqual(['gauge@clinic.example', ['rook@clinic.example']]);
      expect(taken[0]!.text).toContain('https://gauge.example/join#abc');
    } finally {
      await new Promise<void>((resolve) => server.close(resolve));
    }
    await expectAsync(mailer(port).send({ to: 'rook@clinic.example', subject: 'x', text: 'x' })).toBeRejected();
  });
});
