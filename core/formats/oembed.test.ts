import { describe, expect, it } from 'vitest';
import { readOembed } from './oembed.ts';

const JSON_ANSWER = {
  version: '1.0',
  type: 'video',
  title: 'How the eel pass works',
  author_name: 'Saltmere Marsh Reserve',
  html: '<iframe src="https://lanternreel.example/play/eel-pass-71"></iframe>',
  width: 1280,
  height: 720,
  thumbnail_url: 'https://lanternreel.example/posters/eel-pass-71.jpg',
  duration: 200,
};
const XML_ANSWER = `<?xml version="1.0" encoding="utf-8" standalone="yes"?>
<oembed><version>1.0</version><type>video</type><title>How the eel pass works</title>
<author_name>Saltmere Marsh Reserve</author_name>
<html>&lt;iframe src="https://lanternreel.example/play/eel-pass-71"&gt;&lt;/iframe&gt;</html>
<width>1280</width><height>720</height><duration>200</duration>
<thumbnail_url>https://lanternreel.example/posters/eel-pass-71.jpg</thumbnail_url></oembed>`;

describe('an oEmbed answer', () => {
  it('says the same in JSON and in XML', () => {
    const read = readOembed(JSON.stringify(JSON_ANSWER));
    expect(read.kind === 'answer' && read.answer).toMatchObject({
      title: 'How the eel pass works',
      width: 1280,
      seconds: 200,
    });
    expect(readOembed(XML_ANSWER)).toEqual(read);
  });

  it.each([
    ['<!DOCTYPE html><title>Not found</title>', 'neither JSON nor XML'],
    ['nothing of the kind', 'neither JSON nor XML'],
    [JSON.stringify({ ...JSON_ANSWER, version: '2.0' }), 'no version 1.0'],
    [JSON.stringify({ ...JSON_ANSWER, type: 'script' }), 'no type that is known'],
    ['[]', 'no'],
    ['null', 'no'],
  ])('that is none is refused: %s', (text, sentence) => {
    const read = readOembed(text);
    expect(read.kind === 'fault' && read.sentence).toContain(sentence);
  });

  it('that lies about its size is believed in all else', () => {
    const read = readOembed(JSON.stringify({ ...JSON_ANSWER, width: -5, height: 'tall', duration: 1e9 }));
    expect(read.kind === 'answer' && read.answer).toMatchObject({
      width: null,
      height: null,
      seconds: null,
      type: 'video',
    });
  });
});
