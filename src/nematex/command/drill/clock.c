/* Preloaded into the drill's processes alone: the time of day is as many seconds off as the file says that
   NEMATEX_DRILL_CLOCK names (eight bytes). What only counts up is left alone, as when somebody sets a clock. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <fcntl.h>
#include <stdint.h>
#include <stdlib.h>
#include <sys/mman.h>
#include <sys/syscall.h>
#include <sys/time.h>
#include <time.h>
#include <unistd.h>

static volatile int64_t *off;

__attribute__((constructor)) static void open_file(void) {
  const char *name = getenv("NEMATEX_DRILL_CLOCK");
  int file = name ? open(name, O_RDONLY | O_CLOEXEC) : -1;
  void *seen = file < 0 ? MAP_FAILED : mmap(NULL, 8, PROT_READ, MAP_SHARED, file, 0);
  if (file >= 0) close(file);
  if (seen != MAP_FAILED) off = seen;
}

int clock_gettime(clockid_t id, struct timespec *told) {
  int done = (int)syscall(SYS_clock_gettime, id, told);
  if (!done && off && (id == CLOCK_REALTIME || id == CLOCK_REALTIME_COARSE)) told->tv_sec += *off;
  return done;
}

int gettimeofday(struct timeval *restrict told, void *restrict zone) {
  struct timespec now;
  (void)zone;
  clock_gettime(CLOCK_REALTIME, &now);
  told->tv_sec = now.tv_sec;
  told->tv_usec = now.tv_nsec / 1000;
  return 0;
}

time_t time(time_t *told) {
  struct timespec now;
  clock_gettime(CLOCK_REALTIME, &now);
  if (told) *told = now.tv_sec;
  return now.tv_sec;
}
