/** Words of which the passwords are made that are guessed first, longest first, in small letters. */
export const COMMON: readonly string[] = `
correcthorsebatterystaple administrator basketball contrasena letmeinnow manchester motdepasse opensesame wachtwoord barcelona
chocolate liverpool baseball changeme computer corvette december february football iloveyou
internet jennifer november p4ssword passw0rd password passwort pictures princess starwars
sunshine superman whatever arsenal believe charlie chelsea company default diamond
england ferrari forever freedom january jessica letmein loveyou matthew michael
mustang nothing october phoenix picture pokemon samsung testing trustno website
welcome access andrew asdfgh ashley autumn banana batman buster cheese
cookie daniel dragon editor flower ginger harley hockey hunter jordan
joshua killer london lovely master monkey naruto nicole office orange
pepper purple qazwsx qwerty ranger robert secret server shadow silver
soccer spring summer system tester thomas tigger winter yellow zxcvbn
admin guest hello house login media root test user abc
`
  .trim()
  .split(/\s+/);
