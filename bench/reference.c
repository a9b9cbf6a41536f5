/* The references that the service is measured against, in the same run.
 *   echo SIZE     reads records of this size from descriptor 0 and answers each at once with the time it did so, in ns
 *   answer        reads struct input_event reports from descriptor 0 and writes them to descriptor 1: a bare forwarder
 *   move RATE N   writes N reports of motion to descriptor 1, RATE a second; then prints when each was written (us) to 2
 *   arrive        reads reports from descriptor 0 until it closes; prints when each came, us
 *   spawn RATE S M starts RATE programs a second for S seconds, each of which lives for M milliseconds
 *   live M        lives for M milliseconds
 *   stalls S      sleeps to deadlines a millisecond apart for S seconds; prints the start and end, in monotonic us, of each
 *                 time that it was kept for more than 1 ms: this processor, or all of the machine, stood still
 *   sleep N P     sleeps N times to absolute deadlines P nanoseconds apart and prints how late each wake-up was, in ns
 */
#define _GNU_SOURCE
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <linux/input.h>
#include <time.h>
#include <unistd.h>

static long long now_ns(void) {
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    return t.tv_sec * 1000000000LL + t.tv_nsec;
}

static void sleep_until(long long due) {
    struct timespec t = {due / 1000000000LL, due % 1000000000LL};
    clock_nanosleep(CLOCK_MONOTONIC, TIMER_ABSTIME, &t, NULL);
}

/* Two axes and the mark that ends the report, as a mouse sends it. */
static int move(long rate, long count) {
    struct input_event report[3] = {{.type = EV_REL, .code = REL_X, .value = 1},
                                    {.type = EV_REL, .code = REL_Y, .value = -1},
                                    {.type = EV_SYN, .code = SYN_REPORT}};
    long long period = 1000000000LL / rate, due = now_ns() + period, *written = malloc(sizeof *written * count);
    for (long n = 0; n < count; n++, due += period) {
        sleep_until(due);
        long long us = written[n] = now_ns() / 1000;
        for (int i = 0; i < 3; i++) {
            report[i].input_event_sec = us / 1000000;
            report[i].input_event_usec = us % 1000000;
        }
        if (write(1, report, sizeof report) != sizeof report) return 1;
    }
    for (long n = 0; n < count; n++) fprintf(stderr, "%lld\n", written[n]);
    return 0;
}

static int arrive(void) {
    static struct input_event events[4096];
    long room = 1 << 20, count = 0;
    long long *came = malloc(sizeof *came * room);
    size_t rest = 0;
    ssize_t got;
    /* A pipe that was full ends in the midst of an event, which goes on with the next read. */
    while ((got = read(0, (char *)events + rest, sizeof events - rest)) > 0) {
        long long us = now_ns() / 1000;
        long whole = (rest + got) / sizeof *events;
        for (long i = 0; i < whole; i++)
            if (events[i].type == EV_SYN && count < room) came[count++] = us;
        rest = (rest + got) % sizeof *events;
        memmove(events, events + whole, rest);
    }
    for (long n = 0; n < count; n++) printf("%lld\n", came[n]);
    return 0;
}

/* Start programs at a rate, each of which lives for so many milliseconds: this program itself, as "live". */
static int spawn(const char *self, long rate, long seconds, const char *live_ms) {
    long long start = now_ns();
    signal(SIGCHLD, SIG_IGN);
    for (long n = 0; n < rate * seconds; n++) {
        sleep_until(start + n * 1000000000LL / rate);
        if (fork() == 0) {
            execl(self, self, "live", live_ms, (char *)NULL);
            _exit(1);
        }
    }
    return 0;
}

static int stalls(long seconds) {
    const long long period = 1000000LL;
    long long due = now_ns() + period, end = due + seconds * 1000000000LL;
    while (due < end) {
        sleep_until(due);
        long long now = now_ns();
        if (now - due > period) {
            printf("%lld %lld\n", due / 1000, now / 1000);
            due = now;
        }
        due += period;
    }
    return 0;
}

int main(int argc, char **argv) {
    if (argc == 3 && !strcmp(argv[1], "echo")) {
        char record[4096];
        long size = atol(argv[2]);
        if (size < 1 || size > (long)sizeof record) return 2;
        while (read(0, record, size) == size) {
            long long now = now_ns();
            if (write(1, &now, sizeof now) != sizeof now) return 1;
        }
        return 0;
    }
    if (argc == 2 && !strcmp(argv[1], "answer")) {
        struct input_event events[64];
        ssize_t got;
        while ((got = read(0, events, sizeof events)) > 0)
            if (write(1, events, got) != got) return 1;
        return 0;
    }
    if (argc == 4 && !strcmp(argv[1], "move")) return move(atol(argv[2]), atol(argv[3]));
    if (argc == 2 && !strcmp(argv[1], "arrive")) return arrive();
    if (argc == 5 && !strcmp(argv[1], "spawn")) return spawn(argv[0], atol(argv[2]), atol(argv[3]), argv[4]);
    if (argc == 3 && !strcmp(argv[1], "live")) {
        sleep_until(now_ns() + atol(argv[2]) * 1000000LL);
        return 0;
    }
    if (argc == 3 && !strcmp(argv[1], "stalls")) return stalls(atol(argv[2]));
    if (argc == 4 && !strcmp(argv[1], "sleep")) {
        long count = atol(argv[2]);
        long long period = atoll(argv[3]), due = now_ns() + period;
        long long *late = malloc(sizeof *late * count);
        for (long n = 0; n < count; n++, due += period) {
            sleep_until(due);
            late[n] = now_ns() - due;
        }
        for (long n = 0; n < count; n++) printf("%lld\n", late[n]);
        return 0;
    }
    fprintf(stderr, "usage: reference echo SIZE | answer | move RATE N | arrive | stalls S | sleep N PERIOD_NS\n");
    return 2;
}
