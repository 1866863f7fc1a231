// The stand-in as a program: vernal-relay-rig JOB [--map FILE] [--tcp PORT | --pty] [--speed N].
#pragma once

namespace vernal {

// Says on standard output where it listens, obeys standard input until it ends or says quit. Gives the
// exit code: 0, or 2 after bad input.
int run_rig_program(int argc, const char* const* argv);

} // namespace vernal
