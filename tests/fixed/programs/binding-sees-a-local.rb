#! target 2.7
#! run
require "tempfile"
def read(path)
  f = File.open(path)
  begin
    line = f.gets
  ensure
    f.close
  end
  binding.local_variables.include?(:line)
end
puts read(Tempfile.new("x").path)
