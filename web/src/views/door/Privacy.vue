<template>
  <article class="sheet text">
    <h1>What is kept, and who sees it</h1>
    <p>
      Manudrill is run by your studio, or by somebody for it, on a machine of their choice. It sends
      nothing anywhere else: no counting of visits, no advertising, no scripts from other sites.
    </p>
    <h2>About a student</h2>
    <ul>
      <li>
        a name, and an e-mail address where one was given: for a link when the password is forgotten
        and, only where they ask for it, for a letter when something was said of a take;
      </li>
      <li>
        a name to sign in with and a password, of which only a hash is kept; or the hash of a code;
      </li>
      <li>the guitar and the reach of the hand, where they were set;</li>
      <li>the drills and routines that were given, and every step up or down with its cause;</li>
      <li>
        the plan of their weeks with its goals, what was played on each day, and lines of a log kept
        on paper, where an instructor brought one in;
      </li>
      <li>what they said of their hand: tired, that it hurts, effort, and where it aches;</li>
      <li>recordings that were handed in, and what was measured in them;</li>
      <li>
        the hands on video, only where the instructor asked for it and the student let the camera
        film; it has no sound, and either of them can delete it;
      </li>
      <li>
        comments on takes, whether a take was accepted, notes of the instructors and of lessons, and
        that consent was given, and by whom.
      </li>
    </ul>
    <h2>Who sees it</h2>
    <p>
      Students see themselves alone, and not the notes of lessons. A calendar sees a plan under an
      address that the student or an instructor has made for it, until it is revoked. Instructors
      see the students of their studio, and can export everything about one as a file. The owner can
      export the whole studio, and sees letters that were written. Other studios on the same machine
      see nothing. Whoever runs the machine can read its disk.
    </p>
    <h2>For how long</h2>
    <p>
      Until the studio deletes it. When a student is removed, everything about them is deleted after
      fourteen days, within which it can be undone. What instructors did to others’ things is
      written down, with their name and the time.
    </p>
    <h2>On this device</h2>
    <p>
      One cookie, by which you stay signed in; how you like the pages to look; drafts of drills;
      recordings and videos, and what you said of your hand, that were not handed in yet; and, until
      you leave, what the studio said last of your practice, so that the stand works without a line.
    </p>
    <h2>Recordings of other people, and of children</h2>
    <p>
      Laws differ from place to place. Before a studio records children it asks their parents, notes
      their consent on the student’s page, and follows the law that holds where it is. This page
      explains what the program does; it is no legal advice.
    </p>
    <p><RouterLink to="/">To the door</RouterLink></p>
  </article>
</template>

<style scoped>
.text {
  max-width: 46em;
  display: grid;
  gap: var(--s3);
}
h2 {
  margin-top: var(--s3);
}
ul {
  padding-left: 1.2em;
}
</style>
