import { describe, expect, it } from 'vitest';
import { filmKind, isPlayed, sayFilmLength } from './facts.ts';
import { readProbed } from './probe.ts';
import { A_FILM } from './testing.ts';

const video = {
  codec_type: 'video',
  codec_name: 'h264',
  width: 1920,
  height: 1080,
  sample_aspect_ratio: '1:1',
  avg_frame_rate: '30000/1001',
};
const audio = { codec_type: 'audio', codec_name: 'aac', channels: 2 };
const MP4 = {
  format_name: 'mov,mp4,m4a,3gp,3g2,mj2',
  duration: '72.04',
  tags: { title: 'How the eel pass works' },
};
const read = (streams: readonly object[], format: object = MP4) =>
  readProbed({ streams, format }, 48_000_000);

describe('what a film is', () => {
  it('is read from what ffprobe says of it', () => {
    expect(read([video, audio])).toEqual({
      facts: {
        format: 'mp4',
        bytes: 48_000_000,
        seconds: 72.04,
        picture: { width: 1920, height: 1080, rate: 29.97, codec: 'h264', isHdr: false },
        sound: { codec: 'aac', channels: 2 },
        inside: [],
      },
      title: 'How the eel pass works',
      creator: '',
    });
  });

  it.each([
    [{ side_data_list: [{ rotation: -90 }] }, 1080, 1920],
    [{ side_data_list: [{ rotation: 180 }] }, 1920, 1080],
    [{ width: 720, height: 576, sample_aspect_ratio: '16:15' }, 768, 576],
    [{ sample_aspect_ratio: '0:1' }, 1920, 1080],
  ])('is as large as it is seen: %j', (change, width, height) => {
    expect(read([{ ...video, ...change }])?.facts.picture).toMatchObject({ width, height });
  });

  it.each<readonly [what: string, streams: readonly object[], name: string, format: string | undefined]>([
    ['sound alone in MP4', [audio], 'mov,mp4,m4a,3gp,3g2,mj2', 'm4a'],
    ['a recording with a cover', [audio, { ...video, disposition: { attached_pic: 1 } }], 'mov,mp4', 'm4a'],
    [
      'WebM',
      [
        { ...video, codec_name: 'vp9' },
        { ...audio, codec_name: 'opus' },
      ],
      'matroska,webm',
      'webm',
    ],
    ['Matroska', [video, audio], 'matroska,webm', 'mkv'],
    ['MP3', [{ ...audio, codec_name: 'mp3' }], 'mp3', 'mp3'],
    ['a list of other files', [video], 'concat', undefined],
    ['captions alone', [{ codec_type: 'subtitle' }], 'mov,mp4', undefined],
  ])('%s', (_what, streams, format_name, format) => {
    expect(read(streams, { ...MP4, format_name })?.facts.format).toBe(format);
  });

  it.each([undefined, 'text', { streams: 'no' }, { streams: [], format: { format_name: 'mp4' } }])(
    'is nothing where nothing is said: %j',
    (said) => expect(readProbed(said, 1)).toBeNull(),
  );

  it('has no length that is no number', () => {
    expect(read([video], { ...MP4, duration: 'N/A' })?.facts.seconds).toBe(0);
    expect(read([video], { ...MP4, duration: '1e300' })?.facts.seconds).toBeLessThan(1e8);
  });
});

describe('a film on a page', () => {
  const facts = { ...A_FILM, seconds: 72.04 };

  it('is played as it came, where every browser knows what is in it', () => {
    expect(isPlayed(facts)).toBe(true);
    expect(
      isPlayed({ ...facts, picture: { width: 1, height: 1, rate: 25, codec: 'hevc', isHdr: false } }),
    ).toBe(false);
    expect(isPlayed({ ...facts, format: 'mkv' })).toBe(false);
    expect(isPlayed({ ...facts, format: 'mp3', picture: null, sound: { codec: 'mp3', channels: 1 } })).toBe(
      true,
    );
  });

  it('is said as what it is, and how long', () => {
    expect(filmKind(facts)).toBe('film');
    expect(filmKind({ picture: null })).toBe('sound');
    expect(sayFilmLength(facts)).toBe('1:12');
    expect(sayFilmLength({ seconds: 0.2 })).toBe('0:01');
  });
});
